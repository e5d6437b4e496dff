import { mkdirSync, readdirSync, writeFileSync } from 'node:fs';
import { type ClientRequest, request } from 'node:http';
import { join } from 'node:path';
import { buildUrl, errorReply, uploadFile, listTray } from '@coomb/contract';
import { describe, expect, it } from 'vitest';
import { makeProject, useServer } from '../testing/test-server.js';

const BOUNDARY = 'weir';
const start = `--${BOUNDARY}\r\nContent-Disposition: form-data; name="file"; filename="a.csv"\r\nContent-Type: text/csv\r\n\r\nID,Text\r\n`;
const end = `1,The gate shall close.\r\n--${BOUNDARY}--\r\n`;

describe('uploads', () => {
  const server = useServer();
  const arriving = () => readdirSync(join(server.folder, 'tray', '.incoming'));

  function open(project: string, announced: number) {
    let sending!: ClientRequest;
    const answer = new Promise<{ status: number; text: string }>((resolve, reject) => {
      sending = request(`${server.address}${buildUrl(uploadFile.path, { project })}`, {
        method: 'POST',
        headers: { 'Content-Type': `multipart/form-data; boundary=${BOUNDARY}`, 'Content-Length': announced },
      });
      sending.on('response', (response) => {
        let text = '';
        response.on('data', (piece) => (text += String(piece)));
        response.on('end', () => resolve({ status: response.statusCode!, text }));
      });
      sending.on('error', reject);
      sending.write(start);
    });
    return { sending, answer };
  }
  const whole = start.length + end.length;
  const messageOf = (text: string) => errorReply.parse(JSON.parse(text)).error.message;

  it('arrive a few at once; one more is refused in words, and taken when there is room again', async () => {
    const { project } = await makeProject(server.client);
    const six = Array.from({ length: 6 }, () => open(project, whole));
    await expect.poll(() => arriving().length, { timeout: 5000 }).toBe(6);
    const seventh = await open(project, whole).answer;
    expect(seventh.status).toBe(429);
    expect(messageOf(seventh.text)).toBe('6 files are arriving already. Hand this one in again when one of them has arrived.');
    for (const { sending } of six) sending.end(end);
    expect((await Promise.all(six.map(({ answer }) => answer))).map(({ status }) => status)).toEqual(Array(6).fill(200));
    const again = open(project, whole);
    again.sending.end(end);
    expect((await again.answer).status).toBe(200);
    expect(arriving()).toEqual([]);
  });

  it('that break off half-way give their place back and leave nothing on the disk', async () => {
    const { project } = await makeProject(server.client);
    for (let round = 0; round < 3; round++) {
      const six = Array.from({ length: 6 }, () => open(project, whole));
      await expect.poll(() => arriving().length, { timeout: 5000 }).toBe(6);
      for (const { sending, answer } of six) {
        sending.destroy();
        await answer.catch(() => {});
      }
      await expect.poll(() => arriving().length, { timeout: 5000 }).toBe(0);
    }
    const { sending, answer } = open(project, whole);
    sending.end(end);
    expect((await answer).status).toBe(200);
  });

  it('are refused before they arrive when they are too large, or the tray is full', async () => {
    const { project } = await makeProject(server.client);
    const large = await open(project, 300 * 1024 * 1024).answer;
    expect(large.status).toBe(413);
    expect(messageOf(large.text)).toContain('larger than Coomb takes (200 MB)');
    for (let index = 0; index < 200; index++) {
      const folder = join(server.folder, 'tray', project, `01890000-0000-7000-8000-${String(index).padStart(12, '0')}`);
      mkdirSync(folder, { recursive: true });
      for (const part of ['name', 'format', 'bytes']) writeFileSync(join(folder, part), 'ID,Text');
    }
    expect(await server.client.call(listTray, { params: { project } })).toHaveLength(200);
    const full = await open(project, whole).answer;
    expect(full.status).toBe(413);
    expect(messageOf(full.text)).toMatch(/^200 files with 1 MB lie in the tray of this project, and it takes 200 files or 2048 MB\./);
    expect(arriving()).toEqual([]);
  });
});
