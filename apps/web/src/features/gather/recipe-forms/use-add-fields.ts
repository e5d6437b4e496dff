import { addFields, type BodyOf } from '@coomb/contract';
import { useMutation, useQueryClient } from '@tanstack/react-query';
import { call } from '../../../shared/api/client';
import { projectQuery } from '../../../shared/live/project-queries';

/** Adds fields to kinds; done once the project is known with them. */
export function useAddFields(project: string) {
  const client = useQueryClient();
  return useMutation({
    mutationFn: async (fields: NonNullable<BodyOf<typeof addFields>>['fields']) => (await call(addFields, { params: { project }, body: { fields } })).fields,
    onSuccess: () => client.invalidateQueries({ queryKey: projectQuery(project).queryKey }),
  });
}
