/** What names of columns and labels mean, apart from their language. */
export type Concept =
  | 'reference'
  | 'title'
  | 'text'
  | 'kind'
  | 'parent'
  | 'number'
  | 'links'
  | 'verifies'
  | 'priority'
  | 'rationale'
  | 'owner'
  | 'date'
  | 'state'
  | 'method';

/** Words by concept: English, German, French, Spanish, Italian, Dutch, Swedish, Polish, Japanese; in small letters, without accents. */
const WORDS: Record<Concept, string> = {
  reference:
    'id, no, nr, number, ref, reference, ident, identifier, key, code, uid, #, item id, req id, requirement id, requirement no, requirement number, unique id, object id, spec id, test id, test case id, case id, kennung, nummer, lfd nr, referenz, bezeichner, anforderungs-id, anforderungs id, anforderungsnummer, anforderung nr, id anforderung, testfall-id, numero, n°, nº, no., reference, identifiant, id exigence, numero exigence, referencia, identificador, id requisito, codigo, riferimento, identificativo, codice, numero requisito, kenmerk, nummer, eis-id, eisnummer, referentie, identificatie, referens, beteckning, krav-id, kravnummer, id-nr, numer, oznaczenie, identyfikator, id wymagania, numer wymagania, 番号, 要求番号, 要件番号, 要求id, 要件id, 識別子, 管理番号, 項番, no, no.',
  title:
    'title, name, short name, short text, heading, summary, subject, titel, kurztext, uberschrift, bezeichnung, name, kurzbezeichnung, betreff, titre, intitule, nom, resume, titulo, nombre, resumen, asunto, titolo, nome, oggetto, sintesi, titel, naam, omschrijving kort, onderwerp, rubrik, namn, benamning, sammanfattning, tytul, nazwa, temat, タイトル, 題名, 件名, 名称, 見出し, 要求名, 要件名',
  text: 'text, requirement, requirements, description, statement, requirement text, requirement statement, shall statement, wording, content, anforderung, anforderungen, anforderungstext, beschreibung, inhalt, wortlaut, forderung, texte, exigence, exigences, description, enonce, libelle, texto, requisito, requisitos, descripcion, enunciado, contenido, testo, requisito, requisiti, descrizione, enunciato, tekst, eis, eisen, beschrijving, omschrijving, inhoud, krav, kravtext, beskrivning, innehall, tresc, opis, wymaganie, wymagania, 本文, 内容, 説明, 要求, 要件, 要求事項, 要求内容, 記述, 要件内容',
  kind: 'kind, type, object type, item type, requirement type, category, art, typ, kategorie, anforderungsart, anforderungstyp, objekttyp, type, categorie, tipo, categoria, clase, type, soort, categorie, typ, slag, kategori, typ, rodzaj, kategoria, 種類, 種別, 区分, 分類, タイプ',
  parent:
    'parent, part of, belongs to, child of, parent id, ubergeordnet, ubergeordnete anforderung, gehort zu, eltern, elternteil, parent, appartient a, exigence parente, parent, padre, pertenece a, requisito padre, genitore, padre, appartiene a, requisito padre, ouder, hoort bij, bovenliggend, bovenliggende eis, foralder, overordnad, tillhor, del av, rodzic, nadrzedne, nalezy do, wymaganie nadrzedne, 親, 上位, 上位要求, 上位要件, 親要求, 親番号',
  number:
    'outline, outline no, outline number, outline level, section, section no, section number, level, hierarchy, numbering, chapter, gliederung, gliederungsnummer, kapitel, ebene, abschnitt, niveau, chapitre, section, nivel, capitulo, seccion, livello, capitolo, sezione, niveau, hoofdstuk, paragraaf, niva, kapitel, avsnitt, poziom, rozdzial, sekcja, 章, 節, 階層, レベル, 章番号',
  links:
    'source, traces to, trace, derived from, derives from, origin, upstream, need, needs, satisfies need, link, links, related, herkunft, quelle, abgeleitet von, abgeleitet aus, bezug, verweis, verweise, verknupfung, verknupfungen, ursprung, origine, source, derive de, lien, liens, tracabilite, origen, fuente, derivado de, enlace, enlaces, trazabilidad, vinculo, vinculos, origine, fonte, derivato da, deriva da, collegamento, collegamenti, tracciabilita, bron, herkomst, afgeleid van, koppeling, koppelingen, verwijzing, kalla, ursprung, harledd fran, lank, lankar, sparbarhet, hanvisning, zrodlo, pochodzenie, pochodzi z, powiazanie, powiazania, odnosnik, odsylacz, 出典, 由来, 関連, リンク, 参照, トレース, 元要求',
  verifies:
    'verifies, tests, covers, requirement, requirements, requirement id, requirement ids, verified requirement, verified requirements, pruft, verifiziert, testet, deckt ab, gepruefte anforderung, verifie, couvre, teste, verifica, cubre, prueba, verifica, copre, verifieert, dekt, toetst, verifierar, tacker, provar, weryfikuje, pokrywa, testuje, 検証対象, 対象要求, 対象要件',
  priority:
    'priority, prio, importance, prioritat, wichtigkeit, dringlichkeit, priorite, importance, prioridad, importancia, priorita, importanza, prioriteit, belang, urgentie, prioritet, viktighet, priorytet, waznosc, 優先度, 優先順位, 重要度',
  rationale:
    'rationale, reason, justification, why, begrundung, motivation, warum, grund, justification, motif, raison, justificacion, motivo, razon, motivazione, giustificazione, ragione, onderbouwing, motivatie, reden, toelichting, motivering, anledning, skal, uzasadnienie, powod, 根拠, 理由, 背景',
  owner:
    'owner, responsible, author, assignee, assigned to, verantwortlich, verantwortlicher, verantwortliche, zustandig, eigentumer, autor, responsable, proprietaire, auteur, responsable, propietario, autor, responsabile, proprietario, autore, eigenaar, verantwoordelijke, auteur, ansvarig, agare, forfattare, wlasciciel, odpowiedzialny, autor, 担当, 担当者, 責任者, 所有者, 作成者',
  date: 'date, due, due date, datum, termin, fallig, stand, date, echeance, fecha, vencimiento, data, scadenza, datum, vervaldatum, datum, forfallodatum, data, termin, 日付, 期限, 期日, 日時',
  state:
    'state, status, standing, zustand, status, bearbeitungsstand, etat, statut, estado, situacion, stato, condizione, status, toestand, stand, status, tillstand, lage, status, stan, 状態, ステータス, 状況',
  method:
    'method, verification, verification method, verification methods, test method, methode, prufmethode, verifikationsmethode, nachweis, nachweismethode, prufverfahren, verifikation, methode, methode de verification, verification, metodo, metodo de verificacion, verificacion, metodo di verifica, verifica, metodo, verificatiemethode, verificatie, methode, metod, verifieringsmetod, verifiering, provmetod, metoda, metoda weryfikacji, weryfikacja, 検証方法, 確認方法, 手段, 検証手段, 方法',
};

/** Concepts in the order in which they are tried: a word may stand for several, and what is rarer comes first. */
const ORDER: readonly Concept[] = [
  'reference',
  'title',
  'text',
  'parent',
  'kind',
  'number',
  'priority',
  'rationale',
  'owner',
  'date',
  'state',
  'method',
  'links',
  'verifies',
];

const byWord = new Map<string, Set<Concept>>();
for (const concept of ORDER)
  for (const word of WORDS[concept].split(', ')) {
    const known = byWord.get(fold(word)) ?? new Set();
    byWord.set(fold(word), known.add(concept));
  }

/** A name as it is looked up: small letters without accents, without colons, stars and brackets around its end. */
export function fold(name: string): string {
  return name
    .normalize('NFKD')
    .replace(/\p{M}/gu, '')
    .normalize('NFKC')
    .toLowerCase()
    .replace(/ß/g, 'ss')
    .replace(/[ø]/g, 'o')
    .replace(/ł/g, 'l')
    .replace(/[:*.\s]+$/u, '')
    .replace(/\.(?=\s|$)/g, '')
    .replace(/\s*[([].*[)\]]$/u, '')
    .replace(/[_\s]+/g, ' ')
    .trim();
}

/** What a name may mean, the likeliest first; nothing for one that is not known. */
export function findConcepts(name: string): readonly Concept[] {
  return [...(byWord.get(fold(name)) ?? [])];
}
