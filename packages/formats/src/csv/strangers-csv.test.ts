import { applySheetRecipe, defaultScheme, proposeSheetRecipe } from '@coomb/core';
import { describe, expect, it } from 'vitest';
import { readFileContent } from '../file-formats.js';
import { decodeText, readCsv } from './read-csv.js';

const gather = async (text: string | Buffer, name = 'a.csv') => {
  const { content } = await readFileContent(name, Buffer.from(text));
  if (content.type !== 'sheets') throw new Error(content.type);
  const recipe = proposeSheetRecipe(defaultScheme, content.sheets);
  const outcome = applySheetRecipe(defaultScheme, recipe, content.sheets);
  return { recipe, sheet: content.sheets[0]!, drafts: outcome.drafts, issues: [...content.issues, ...outcome.issues] };
};

describe('separated values as strangers write them', () => {
  it('decodes Windows-1252 as it is', () => {
    const bytes = Buffer.from([0x80, 0x84, 0x93, 0x96, 0x85, 0xe4, 0x9f]);
    expect(decodeText(bytes)).toBe('€„“–…äŸ');
  });

  it.each([
    ['one row', 'Nr;Anforderung\n1;Das Wehr soll, auch bei Eis, schließen\n'],
    ['two rows', 'ID;Requirement\nA-1;The weir shall close, always\nA-2;The lock, too, shall close\n'],
    ['words without any known name', 'Was;Warum auch immer\nTor;Es soll schließen, sofort\nPegel;Er soll messen, immer\n'],
    ['one column', 'Requirement\nThe weir shall close\n'],
  ])('finds items in a file of %s', async (_, text) => {
    const { drafts, sheet } = await gather(text);
    expect(drafts).toHaveLength(sheet.rows.length - 1);
    expect(drafts.every((draft) => draft.title.length > 1)).toBe(true);
  });

  it('knows single quotation marks as quotes where they wrap values, and as letters elsewhere', () => {
    expect(readCsv(Buffer.from("id,text\n'A-1','one, two'\n'A-2','it''s three, four'\n"), 'a.csv').sheets[0]!.rows).toEqual([
      ['id', 'text'],
      ['A-1', 'one, two'],
      ['A-2', "it's three, four"],
    ]);
    expect(readCsv(Buffer.from("id,text\nA-1,the gate's edge\nA-2,rock 'n' roll\n"), 'a.csv').sheets[0]!.rows[2]).toEqual(['A-2', "rock 'n' roll"]);
  });

  it('says what it assumed where rows do not fit, and reads by what is chosen', () => {
    const text = 'id:text:more\nA-1:one, two, three:x\nA-2:four, five:y\n';
    expect(readCsv(Buffer.from(text), 'a.csv', { separator: ':', quote: '"' }).sheets[0]!.rows[1]).toEqual(['A-1', 'one, two, three', 'x']);
    const { issues } = readCsv(Buffer.from('id,text\nA-1,one, two\nA-2,three, four\n'), 'a.csv');
    expect(issues).toMatchObject([
      { code: 'csv-ragged', at: 'line 2', message: expect.stringMatching(/parted by commas and quoted by double quotation marks.*choose it/) },
    ]);
    expect(readCsv(Buffer.from('id;text\n1;"open\n'), 'a.csv').issues[0]!.message).toMatch(/parted by semicolons/);
  });

  it('names every column that goes nowhere, with how much it holds', async () => {
    const { issues } = await gather('ID,Title,Farbe,,Aufwand\nA-1,One,rot,x,3\nA-2,Two,,y,4\n');
    expect(issues.filter((issue) => issue.code === 'column-unread').map((issue) => [issue.at, issue.message.replace(/ that go.*/, '')])).toEqual([
      ['a!C1', 'The column "Farbe" holds 1 value'],
      ['a!D1', 'The column D, which has no name, holds 2 values'],
      ['a!E1', 'The column "Aufwand" holds 2 values'],
    ]);
  });

  it('takes rows of words alone for sections and leaves totals out, as in the workbook of the same sheet', async () => {
    const { drafts, issues } = await gather(
      'ID,Title,Text,Effort\nGates,,,\nA-1,One,The gate shall close.,3\nA-2,Two,The gate shall open.,4\nGauges,,,\nA-3,Three,The gauge shall measure.,5\nA-4,Four,The gauge shall tell.,1\nTotal,,,13\n',
    );
    expect(drafts.map((draft) => [draft.role, draft.title, draft.parent])).toEqual([
      ['section', 'Gates', -1],
      ['item', 'One', 0],
      ['item', 'Two', 0],
      ['section', 'Gauges', -1],
      ['item', 'Three', 3],
      ['item', 'Four', 3],
    ]);
    expect(issues.find((issue) => issue.code === 'row-total')!.message).toContain('Total · 13');
  });

  it('counts no blank rows behind the last, and tells a header without rows', async () => {
    expect(readCsv(Buffer.from('ID,Title\nA-1,One\n,\n\n  ,\n'), 'a.csv').sheets[0]!.rows).toHaveLength(2);
    expect((await gather('ID,Title\n')).issues.map((issue) => issue.code)).toContain('rows-none');
  });

  it.each([
    ['nothing', ''],
    ['a mark alone', '\uFEFF'],
    ['blanks', ' \n\n  \n'],
  ])('refuses a file of %s with a word', (_, text) => {
    expect(() => readCsv(Buffer.from(text), 'a.csv')).toThrow(/empty|nothing but/);
  });

  it('proposes short words beside long ones as title', async () => {
    const { recipe } = await gather(
      'Aaa,Bbb,Ccc\nA-1,Weir gate,The weir gate shall move over its full travel within two minutes.\nA-2,Lock gate,The lock gate shall move over its travel within one minute.\n',
    );
    expect(recipe.columns.map((column) => column.meaning.as)).toEqual(['reference', 'title', 'text']);
  });

  it('cuts titles made of a text at a word', async () => {
    const { drafts } = await gather(
      `ID,Text\nA-1,${'The weir control shall hold the level within the band that was agreed with everybody who lives there'}\nA-2,Short\n`,
    );
    expect(drafts[0]!.title).toMatch(/\w…$/);
    expect('The weir control shall hold the level within the band that was agreed with everybody who lives there').toContain(
      `${drafts[0]!.title.slice(0, -1)} `,
    );
  });
});
