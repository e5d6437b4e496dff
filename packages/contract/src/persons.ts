import { z } from 'zod';
import { idSchema } from './common.js';
import { endpoint } from './endpoint.js';

export const personSchema = z.object({
  id: idSchema,
  name: z.string(),
  initials: z.string(),
  /** One of the palette's own names: `moss`, `slate`. */
  colour: z.string(),
});
export type Person = z.infer<typeof personSchema>;

export const listPersons = endpoint({ method: 'GET', path: '/persons', summary: 'Everybody who ever changed something here', reply: z.array(personSchema) });

export const renamePerson = endpoint({
  method: 'PATCH',
  path: '/persons/:person',
  summary: 'Give a person another name, in all that was ever recorded of them',
  params: z.object({ person: idSchema }),
  body: z.object({ name: z.string().trim().min(1).max(80) }),
  reply: personSchema,
});
