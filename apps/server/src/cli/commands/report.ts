import { writeFile } from 'node:fs/promises';
import { parseArgs } from 'node:util';
import { createReport, getReportDocument, getReportPage } from '@coomb/contract';
import { findProject, withClient } from '../client.js';
import { type Command, exitCodes, UsageError } from '../command.js';

export const report: Command['run'] = async (args, io) => {
  const { values } = parseArgs({
    args,
    options: {
      out: { type: 'string' },
      project: { type: 'string' },
      title: { type: 'string' },
      data: { type: 'string' },
      server: { type: 'string' },
      person: { type: 'string' },
    },
  });
  const endpoint = values.out?.endsWith('.docx') ? getReportDocument : values.out?.endsWith('.html') ? getReportPage : undefined;
  if (!values.out || !endpoint) throw new UsageError('Name the file to write: --out FILE.docx or --out FILE.html.');
  const out = values.out;
  return withClient({ data: values.data, server: values.server, person: values.person ?? 'Command line' }, async (client) => {
    const project = await findProject(client, values.project);
    const made = await client.call(createReport, { params: { project }, body: { title: values.title ?? 'Status report' } });
    await writeFile(out, await client.bytes(endpoint, { project, report: made.id }));
    io.out(`Report ${made.number} written to ${out}`);
    return exitCodes.done;
  });
};
