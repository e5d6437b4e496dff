import { editItem, findItems, getProject, uploadFile } from '@coomb/contract';
import { describe, expect, it, vi } from 'vitest';
import { answer, aProject, calls, Refusal, usePage } from '../../testing/page';
import { ApiError, call, upload } from './client';

const failure = async (promise: Promise<unknown>): Promise<ApiError> =>
  promise.then(
    () => expect.fail('was not refused'),
    (error) => error,
  );

describe('calling the server', () => {
  usePage();

  it('fills the address and parses the reply by the contract', async () => {
    answer(getProject, aProject);
    expect((await call(getProject, { params: { project: aProject.id } })).name).toBe('Larkbeck Weir');
    expect(calls).toEqual([{ call: `GET /projects/${aProject.id}`, body: undefined }]);
  });

  it('sends words in the query safely', async () => {
    let seen = '';
    answer(findItems, ({ url }) => {
      seen = url.searchParams.get('words')!;
      return [];
    });
    await call(findItems, { params: { project: aProject.id }, query: { words: 'a & b = 50 %', most: 3 } });
    expect(seen).toBe('a & b = 50 %');
  });

  it('gives the refusal in the words of the server', async () => {
    answer(editItem, () => {
      throw new Refusal('changed-meanwhile', 'SYS-012 was changed by Ben meanwhile.');
    });
    const error = await failure(call(editItem, { params: { project: aProject.id, item: 'SYS-012' }, body: { revision: 1, title: 'x' } }));
    expect(error).toBeInstanceOf(ApiError);
    expect(error.message).toBe('SYS-012 was changed by Ben meanwhile.');
  });

  it('tells a server that cannot be reached from one that refuses', async () => {
    vi.stubGlobal('fetch', () => Promise.reject(new TypeError('Failed to fetch')));
    const error = await failure(call(getProject, { params: { project: aProject.id } }));
    expect([error.code, error.message]).toEqual(['unreachable', expect.stringContaining('cannot be reached')]);
  });

  it('lets an abandoned call end as abandoned', async () => {
    vi.stubGlobal('fetch', () => Promise.reject(new DOMException('gone', 'AbortError')));
    expect((await failure(call(getProject, { params: { project: aProject.id } }))).name).toBe('AbortError');
  });

  it('says so when the reply is not what the contract promises', async () => {
    answer(getProject, { ...aProject, waiting: undefined } as never);
    expect((await failure(call(getProject, { params: { project: aProject.id } }))).message).toContain('Load the page again');
  });

  it('names the status of an answer that is no error of ours', async () => {
    vi.stubGlobal('fetch', () => Promise.resolve(new Response('<html>', { status: 502 })));
    expect((await failure(call(getProject, { params: { project: aProject.id } }))).message).toBe('The server answered 502.');
  });

  it('uploads a file as a form', async () => {
    answer(uploadFile, () => {
      throw new Refusal('file-unreadable', 'The file is empty.', 422);
    });
    expect((await failure(upload(aProject.id, new File([], 'empty.docx')))).message).toBe('The file is empty.');
  });
});
