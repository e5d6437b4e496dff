import type { PartOf } from '@coomb/core';
import { Choice } from '../../shared/ui/choice';
import { Labelled, Several } from './form-parts';
import type { PartFormProps } from './part-form';

/** Which items need evidence, along which link it comes, and whose tests count too. */
export function VerificationForm({ part, scheme, change }: PartFormProps<'verification'>) {
  const { body } = part;
  const set = (more: Partial<PartOf<'verification'>['body']>) => change([{ ...part, body: { ...body, ...more } }]);
  const links = scheme.linkKinds.filter((kind) => !kind.retired || kind.id === body.verifies || kind.id === body.derives);
  return (
    <>
      <Labelled label="Asked of">
        {() => (
          <Several
            label="Kinds that must be verified"
            options={scheme.kinds.filter((kind) => !kind.retired).map((kind) => ({ id: kind.id, label: kind.label }))}
            value={body.of.kinds}
            onChange={(kinds) => set({ of: { ...body.of, kinds } })}
          />
        )}
      </Labelled>
      <Labelled label="Evidence" hint="Tests stand where this link begins; what they tell of stands where it ends.">
        {() => (
          <Choice
            label="Link that verifies"
            width="100%"
            value={body.verifies}
            options={[{ value: '', label: 'no link' }, ...links.map((kind) => ({ value: kind.id, label: `comes along “${kind.phrase}”` }))]}
            onChange={(verifies) => set({ verifies })}
          />
        )}
      </Labelled>
      <Labelled label="Counts too" hint="Tests of what is linked so count for the item that it comes from.">
        {() => (
          <Choice
            label="Link whose tests count too"
            width="100%"
            value={body.derives ?? ''}
            options={[{ value: '', label: 'only its own tests' }, ...links.map((kind) => ({ value: kind.id, label: `tests of what “${kind.phrase}”` }))]}
            onChange={(derives) => set({ derives: derives || null })}
          />
        )}
      </Labelled>
      <Labelled label="Waived with">
        {() => (
          <Choice
            label="Rule whose waivers waive verification"
            width="100%"
            value={body.waivedBy}
            options={[{ value: '', label: 'nothing' }, ...scheme.rules.map((rule) => ({ value: rule.id, label: rule.label }))]}
            onChange={(waivedBy) => set({ waivedBy })}
          />
        )}
      </Labelled>
    </>
  );
}
