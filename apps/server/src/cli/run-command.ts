import { type Command, type CommandIo, exitCodes, UsageError } from './command.js';
import { backup, restore, verify } from './commands/backup.js';
import { coverage } from './commands/coverage.js';
import { importCommand } from './commands/import.js';
import { inspect } from './commands/inspect.js';
import { report } from './commands/report.js';
import { demo, serve } from './commands/serve.js';

export const commands: readonly Command[] = [inspect, importCommand, coverage, report, backup, restore, verify, serve, demo];

const help = () => `Usage: coomb COMMAND

${commands.map((command) => `  ${command.usage}\n      ${command.summary}`).join('\n')}

Exit codes: 0 done, 1 refused or failed, 2 wrong usage, 3 a required coverage is not reached, 4 the data folder is in use, 5 the\ndatabase is damaged or gave up.`;

const standardIo: CommandIo = { out: (text) => console.log(text), error: (text) => console.error(text) };

/** Runs one command line and returns its exit code. */
export async function runCommand(args: string[], io: CommandIo = standardIo): Promise<number> {
  const [name, ...rest] = args;
  if (!name || name === 'help' || name === '--help') {
    io.out(help());
    return exitCodes.done;
  }
  const command = commands.find((one) => one.name === name);
  try {
    if (!command) throw new UsageError(`There is no command "${name}".`);
    return await command.run(rest, io);
  } catch (error) {
    if (error instanceof UsageError || (error instanceof TypeError && 'code' in error && String(error.code).startsWith('ERR_PARSE_ARGS'))) {
      io.error(`${error.message}\n${command ? `Usage: coomb ${command.usage}` : help()}`);
      return exitCodes.usage;
    }
    const name = error instanceof Error ? error.name : '';
    if (name === 'FolderInUseError') {
      io.error((error as Error).message);
      return exitCodes.folderInUse;
    }
    if (name === 'DataFolderError') {
      io.error((error as Error).message);
      return exitCodes.database;
    }
    io.error(error instanceof Error ? error.message : String(error));
    return exitCodes.refused;
  }
}
