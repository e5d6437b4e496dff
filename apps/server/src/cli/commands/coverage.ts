import { parseArgs } from 'node:util';
import { getReadiness } from '@coomb/contract';
import { findProject, withClient } from '../client.js';
import { type Command, exitCodes, UsageError } from '../command.js';

export const coverage: Command['run'] = async (args, io) => {
  const { values } = parseArgs({
    args,
    options: {
      project: { type: 'string' },
      data: { type: 'string' },
      server: { type: 'string' },
      json: { type: 'boolean' },
      require: { type: 'string', multiple: true },
    },
  });
  return withClient({ data: values.data, server: values.server, person: 'Command line' }, async (client) => {
    const project = await findProject(client, values.project);
    const readiness = await client.call(getReadiness, { params: { project } });
    if (values.json) io.out(JSON.stringify(readiness));
    else
      for (const { rule, label, counts, applicable } of readiness.rules)
        io.out(`${rule.padEnd(12)} ${String(counts.met + counts.waived).padStart(6)} of ${String(applicable).padStart(6)}  ${label}`);
    let code: number = exitCodes.done;
    for (const wish of values.require ?? []) {
      const [name, percent] = wish.split('=');
      const found = readiness.rules.find((one) => one.rule === name);
      if (!found || !Number.isFinite(Number(percent)))
        throw new UsageError(`--require takes RULE=PERCENT; rules are ${readiness.rules.map((one) => one.rule).join(', ')}.`);
      const reached = found.applicable === 0 ? 100 : (100 * (found.counts.met + found.counts.waived)) / found.applicable;
      if (reached >= Number(percent)) continue;
      io.error(`${found.label}: ${reached.toFixed(1)} % reached, ${percent} % required`);
      code = exitCodes.belowTarget;
    }
    return code;
  });
};
