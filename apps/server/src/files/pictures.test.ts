import { buildUrl, editItem, exportItems, getFile, getItem, storePicture } from '@coomb/contract';
import { describe, expect, it } from 'vitest';
import { addItem, makeProject, useServer } from '../testing/test-server.js';

const PNG = Buffer.from('iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mNk+M9QDwADhgGAWjR9awAAAABJRU5ErkJggg==', 'base64');

describe('pictures in texts', () => {
  const server = useServer();
  async function store(project: string, name: string, bytes: Uint8Array) {
    const form = new FormData();
    form.set('file', new Blob([new Uint8Array(bytes)]), name);
    const response = await fetch(`${server.address}${buildUrl(storePicture.path, { project })}`, { method: 'POST', body: form });
    return { status: response.status, said: (await response.json()) as { id: string; address: string; mediaType: string } & { error?: { message: string } } };
  }

  it('are stored once, served as what their bytes are, and kept in the text that shows them', async () => {
    const { project, requirements } = await makeProject(server.client);
    const { said: first } = await store(project, 'plan.txt', PNG);
    expect(first.mediaType).toBe('image/png');
    expect((await store(project, 'again.png', PNG)).said.id).toBe(first.id);
    const shown = await fetch(`${server.address}${buildUrl(getFile.path, { project, file: first.id })}`);
    expect([shown.headers.get('content-type'), Buffer.from(await shown.arrayBuffer()).equals(PNG)]).toEqual(['image/png', true]);
    const item = await addItem(server.client, project, requirements, 'Gate plan');
    const html = `<figure><img src="${first.address}" alt="Plan" /><figcaption>From <em>below</em></figcaption></figure><p><math><mi>x</mi></math> <a href="coomb-item:${item.id}">REQ-001</a></p><pre><code>a\n  b</code></pre>`;
    await server.client.call(editItem, { params: { project, item: item.id }, body: { revision: item.revision, html } });
    expect((await server.client.call(getItem, { params: { project, item: item.id } })).html).toBe(html);
    const other = await makeProject(server.client, 'Other pond');
    expect((await store(other.project, 'plan.png', PNG)).said.id).not.toBe(first.id);
  });

  it('go with the text into files, with their captions; formulas go as the words they are typed in', async () => {
    const { project, requirements } = await makeProject(server.client, 'Export pond');
    const { said } = await store(project, 'plan.png', PNG);
    const item = await addItem(server.client, project, requirements, 'Gate plan', {
      html: `<figure><img src="${said.address}" alt="Plan" /><figcaption>From below</figcaption></figure><p>Flow <math><mfrac><mi>V</mi><mi>t</mi></mfrac></math></p>`,
    });
    const save = async (format: 'csv' | 'md' | 'reqif', id = item.id) => {
      const response = await fetch(`${server.address}${buildUrl(exportItems.path, { project, format })}`, {
        method: exportItems.method,
        headers: { 'Content-Type': 'application/json' },
        body: JSON.stringify({ items: [id] }),
      });
      expect([response.status, format]).toEqual([200, format]);
      return Buffer.from(await response.arrayBuffer()).toString('utf8');
    };
    expect(await save('csv')).toContain('Flow V/t');
    const markdown = await save('md');
    expect(markdown).toContain('<figcaption>From below</figcaption>');
    expect(markdown).toContain('<mfrac><mi>V</mi><mi>t</mi></mfrac>');
    const plain = await addItem(server.client, project, requirements, 'Listing', {
      html: `<pre><code>a\n  b</code></pre><p><math><msqrt><mi>x</mi></msqrt></math> see <a href="coomb-item:${item.id}">REQ-001</a></p>`,
    });
    expect(await save('reqif', plain.id)).toContain('<xhtml:pre><xhtml:code>a\n  b</xhtml:code></xhtml:pre><xhtml:p>√x see REQ-001</xhtml:p>');
    expect(await save('md', plain.id)).toMatch(/```\na\n {2}b\n```/);
  });

  it('are refused when they are none, in words', async () => {
    const { project } = await makeProject(server.client, 'Wrong pond');
    const page = await store(project, 'plan.png', Buffer.from('<html><script>1</script></html>'));
    expect([page.status, page.said.error!.message]).toEqual([400, 'plan.png is no picture that can be shown. PNG, JPEG, GIF, WebP, BMP and SVG can.']);
    expect((await store('01890000-0000-7000-8000-000000000009', 'plan.png', PNG)).status).toBe(404);
  });
});
