import { type Command, type CommandIo, exitCodes, UsageError } from './command.js';

const serving = '[--port 4280] [--host 127.0.0.1 [--open]] [--name NAME]… [--copies 7] [--copies-to FOLDER] [--copies-every HOURS]';

/** Every command. What one needs is loaded when it is called: a small file is told in a moment, without the server's parts. */
export const commands: readonly Command[] = [
  {
    name: 'inspect',
    usage: 'inspect FILE [--json] [--items] [--kind KIND] [--recipe FILE]',
    summary: 'Say what a file holds and what would be imported; needs no database',
    run: async (...call) => (await import('./commands/inspect.js')).inspect(...call),
  },
  {
    name: 'import',
    usage: 'import FILE --project NAME [--collection NAME --prefix SYS --kind KIND] (--data FOLDER | --server ADDRESS) [--person NAME] [--json]',
    summary: 'Import a file into a project; the project and the collection are made when missing',
    run: async (...call) => (await import('./commands/import.js')).importCommand(...call),
  },
  {
    name: 'coverage',
    usage: 'coverage [--project NAME] (--data FOLDER | --server ADDRESS) [--json] [--require RULE=PERCENT]…',
    summary: 'Print coverage and verification states; exit code 3 when a required percentage is not reached',
    run: async (...call) => (await import('./commands/coverage.js')).coverage(...call),
  },
  {
    name: 'report',
    usage: 'report --out FILE.docx|FILE.html [--project NAME] [--title TITLE] (--data FOLDER | --server ADDRESS) [--person NAME]',
    summary: 'Publish a status report and write it to a file',
    run: async (...call) => (await import('./commands/report.js')).report(...call),
  },
  {
    name: 'backup',
    usage: 'backup --out FILE (--data FOLDER | --server ADDRESS)',
    summary: 'Write everything in a data folder into one file, also while people work on it (--server)',
    run: async (...call) => (await import('./commands/backup.js')).backup(...call),
  },
  {
    name: 'restore',
    usage: 'restore --from FILE|FOLDER --data FOLDER',
    summary: 'Bring a backup, or the newest copy of a folder of copies, into a data folder that is missing or empty',
    run: async (...call) => (await import('./commands/backup.js')).restore(...call),
  },
  {
    name: 'verify',
    usage: 'verify --data FOLDER [--json]',
    summary: 'Read everything in a data folder and say what is sound; exit code 5 when something is not',
    run: async (...call) => (await import('./commands/backup.js')).verify(...call),
  },
  {
    name: 'serve',
    usage: `serve [--data .coomb/data] ${serving}`,
    summary: 'Start Coomb on a data folder; every day a copy of it is made beside it',
    run: async (...call) => (await import('./commands/serve.js')).serve(...call),
  },
  {
    name: 'demo',
    usage: `demo [--data .coomb/demo] [--fresh] ${serving}`,
    summary: 'Start Coomb on the Larkbeck Weir project; --fresh throws your changes away and begins anew',
    run: async (...call) => (await import('./commands/serve.js')).demo(...call),
  },
];

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
