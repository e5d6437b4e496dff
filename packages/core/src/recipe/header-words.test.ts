import { describe, expect, it } from 'vitest';
import { defaultScheme } from '../scheme/starters/index.js';
import { proposeMeaning } from './propose-meaning.js';

/** What people call columns where they work, by meaning. */
const words: Record<string, Record<string, string>> = {
  reference: {
    English: 'Req ID',
    German: 'Anforderungs-ID',
    French: 'Identifiant',
    Spanish: 'Código',
    Italian: 'Identificativo',
    Dutch: 'Kenmerk',
    Swedish: 'Beteckning',
    Polish: 'Identyfikator',
    Japanese: '要求番号',
  },
  title: {
    English: 'Title',
    German: 'Überschrift',
    French: 'Intitulé',
    Spanish: 'Título',
    Italian: 'Titolo',
    Dutch: 'Titel',
    Swedish: 'Rubrik',
    Polish: 'Tytuł',
    Japanese: 'タイトル',
  },
  text: {
    English: 'Requirement text',
    German: 'Beschreibung',
    French: 'Énoncé',
    Spanish: 'Descripción',
    Italian: 'Descrizione',
    Dutch: 'Omschrijving',
    Swedish: 'Beskrivning',
    Polish: 'Treść',
    Japanese: '要求内容',
  },
  kind: {
    English: 'Type',
    German: 'Art',
    French: 'Catégorie',
    Spanish: 'Tipo',
    Italian: 'Categoria',
    Dutch: 'Soort',
    Swedish: 'Slag',
    Polish: 'Rodzaj',
    Japanese: '種別',
  },
  parent: {
    English: 'Parent',
    German: 'Übergeordnet',
    French: 'Appartient à',
    Spanish: 'Padre',
    Italian: 'Genitore',
    Dutch: 'Bovenliggend',
    Swedish: 'Överordnad',
    Polish: 'Nadrzędne',
    Japanese: '上位要求',
  },
  'link derives': {
    English: 'Traces to',
    German: 'Herkunft',
    French: 'Lien',
    Spanish: 'Trazabilidad',
    Italian: 'Collegamenti',
    Dutch: 'Koppelingen',
    Swedish: 'Länkar',
    Polish: 'Powiązania',
    Japanese: '関連',
  },
  'field priority': {
    English: 'Prio',
    German: 'Priorität',
    French: 'Priorité',
    Spanish: 'Prioridad',
    Italian: 'Priorità',
    Dutch: 'Prioriteit',
    Swedish: 'Prioritet',
    Polish: 'Priorytet',
    Japanese: '優先度',
  },
  'field rationale': {
    English: 'Reason',
    German: 'Begründung',
    French: 'Justification',
    Spanish: 'Justificación',
    Italian: 'Motivazione',
    Dutch: 'Onderbouwing',
    Swedish: 'Motivering',
    Polish: 'Uzasadnienie',
    Japanese: '根拠',
  },
  'field owner': {
    English: 'Responsible',
    German: 'Verantwortlich',
    French: 'Responsable',
    Spanish: 'Propietario',
    Italian: 'Responsabile',
    Dutch: 'Eigenaar',
    Swedish: 'Ansvarig',
    Polish: 'Właściciel',
    Japanese: '担当者',
  },
  'field standing': {
    English: 'Status',
    German: 'Zustand',
    French: 'État',
    Spanish: 'Estado',
    Italian: 'Stato',
    Dutch: 'Toestand',
    Swedish: 'Tillstånd',
    Polish: 'Stan',
    Japanese: '状態',
  },
  'field method': {
    English: 'Verification method',
    German: 'Prüfmethode',
    French: 'Méthode de vérification',
    Spanish: 'Método',
    Italian: 'Metodo di verifica',
    Dutch: 'Verificatiemethode',
    Swedish: 'Metod',
    Polish: 'Metoda',
    Japanese: '検証方法',
  },
};

describe('names of columns', () => {
  for (const [meaning, byLanguage] of Object.entries(words))
    it.each(Object.entries(byLanguage))(`say ${meaning} in %s: "%s"`, (_, name) => {
      for (const spelled of [name, name.toUpperCase(), `${name}:`, ` ${name} *`]) {
        const { as, ...rest } = proposeMeaning(defaultScheme, 'requirement', spelled);
        expect([as, ...Object.values(rest).filter((value) => typeof value === 'string')].join(' ')).toBe(meaning);
      }
    });

  it('say days where the kind has a field of days, and nothing where it has none', () => {
    const scheme = {
      ...defaultScheme,
      kinds: defaultScheme.kinds.map((kind) => ({ ...kind, fields: [...kind.fields, { id: 'due', label: 'Due', type: 'date' as const }] })),
    };
    for (const name of ['Date', 'Datum', 'Échéance', 'Fecha', 'Data', 'Datum', 'Termin', '期限']) {
      expect(proposeMeaning(scheme, 'requirement', name)).toEqual({ as: 'field', field: 'due' });
      expect(proposeMeaning(defaultScheme, 'requirement', name)).toEqual({ as: 'ignore' });
    }
  });

  it('name what a test verifies, not its text', () => {
    for (const name of ['Requirement', 'Verifies', 'Requirements'])
      expect(proposeMeaning(defaultScheme, 'testCase', name)).toMatchObject({ as: 'link', linkKind: 'verifies' });
    expect(proposeMeaning(defaultScheme, 'requirement', 'Requirement')).toEqual({ as: 'text' });
  });
});
