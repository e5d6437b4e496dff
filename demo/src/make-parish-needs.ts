import { Document, HeadingLevel, Packer, Paragraph, Table, TableCell, TableRow } from 'docx';

type Need = [reference: string, title: string, text: string, priority: string];

const needs: Need[] = [
  ['NEED-101', 'Footpath stays open', 'Walkers need the towpath open on all but four days a year.', 'Medium'],
  ['NEED-102', 'Know before the party', 'Organisers of events on the meadow need to know three days ahead whether it will flood.', 'Medium'],
  ['NEED-103', 'Count the eels', 'The fishery board needs to know how many eels pass in each season.', 'Low'],
  ['NEED-104', 'Clean water for the hatchery', 'The hatchery needs to be told before sediment is flushed.', 'High'],
  ['NEED-105', 'Old gate on show', 'The parish wants the wooden gate of 1891 kept where visitors see it.', 'Low'],
  ['NEED-106', 'Someone to ring', 'Residents need a person to ring at any hour who knows what the gates do.', 'High'],
];

/** Needs of parish and fishery board, written as one small table of label and value for each, as the parish keeps them. */
export function makeParishNeeds(issue: 1 | 2 = 1): Promise<Buffer> {
  const shown = issue === 1 ? needs : revise();
  const row = (label: string, value: string) => new TableRow({ children: [label, value].map((text) => new TableCell({ children: [new Paragraph(text)] })) });
  const children = [
    new Paragraph({ text: 'What parish and fishery board ask for', heading: HeadingLevel.HEADING_1 }),
    new Paragraph(`Minutes of the river committee, version ${issue}. All names and figures are invented.`),
    ...shown.flatMap(([reference, title, text, priority]) => [
      new Table({ rows: [row('ID', reference), row('Title', title), row('Description', text), row('Priority', priority)] }),
      new Paragraph(''),
    ]),
  ];
  return Packer.toBuffer(new Document({ sections: [{ children }] }));
}

function revise(): Need[] {
  const kept = needs.filter(([reference]) => reference !== 'NEED-105');
  const reworded = kept.map((need): Need => (need[0] === 'NEED-102' ? [need[0], need[1], need[2].replace('three days', 'five days'), 'High'] : need));
  return [...reworded, ['NEED-107', 'Lamps that spare the bats', 'The bat group needs lamps at the weir that are dark between May and August.', 'Low']];
}
