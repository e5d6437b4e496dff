import { parseArgs } from 'node:util';
import { getBackup } from '@coomb/contract';
import { findBackup, restoreBackup, writeWhole } from '../../backup/archive.js';
import { verifyDatabase } from '../../backup/verify.js';
import { openDatabase } from '../../database/database.js';
import { withClient } from '../client.js';
import { type Command, exitCodes, UsageError } from '../command.js';

export const backup: Command['run'] = async (args, io) => {
  const { values } = parseArgs({ args, options: { out: { type: 'string' }, data: { type: 'string' }, server: { type: 'string' } } });
  const { out } = values;
  if (!out) throw new UsageError('Name the file to write: --out FILE.tar.gz');
  return withClient({ data: values.data, server: values.server, person: 'Command line' }, async (client) => {
    await writeWhole(await client.stream(getBackup), out);
    io.out(`Backup written to ${out}`);
    return exitCodes.done;
  });
};

export const restore: Command['run'] = async (args, io) => {
  const { values } = parseArgs({ args, options: { from: { type: 'string' }, data: { type: 'string' } } });
  if (!values.from || !values.data) throw new UsageError('Say what to restore and where to: --from FILE --data FOLDER.');
  const file = findBackup(values.from);
  const { madeAt, files } = await restoreBackup(file, values.data);
  io.out(`${file}, made ${madeAt}, was restored to ${values.data}: ${files} files, each as it was put in.`);
  return exitCodes.done;
};

export const verify: Command['run'] = async (args, io) => {
  const { values } = parseArgs({ args, options: { data: { type: 'string' }, json: { type: 'boolean' } } });
  if (!values.data) throw new UsageError('Say which folder: --data FOLDER.');
  const database = await openDatabase(values.data);
  try {
    const findings = await verifyDatabase(database.db);
    const faults = findings.reduce((sum, one) => sum + one.faults.length, 0);
    if (values.json) io.out(JSON.stringify({ folder: values.data, sound: faults === 0, findings }));
    else {
      for (const { what, looked, faults: own } of findings) {
        io.out(`${own.length === 0 ? 'sound ' : 'FAULTY'}  ${String(looked).padStart(8)}  ${what}`);
        for (const fault of own) io.out(`          ${fault}`);
      }
      io.out(
        faults === 0
          ? `${values.data} is sound.`
          : `${values.data} has faults. Nothing was changed. Restore a copy with "coomb restore --from FILE --data ANOTHER-FOLDER"; keep this folder until that one is verified.`,
      );
    }
    return faults === 0 ? exitCodes.done : exitCodes.database;
  } finally {
    await database.close();
  }
};
