import type { TrayEntry } from '@coomb/contract';
import type { ComponentType } from 'react';
import { DocumentGather } from './DocumentGather';
import { ExchangeGather } from './ExchangeGather';
import { ModelGather } from './ModelGather';
import { ResultsGather } from './ResultsGather';
import { SheetGather } from './SheetGather';

type Content = TrayEntry['content'];

interface Show<Type extends Content['type']> {
  View: ComponentType<{ entry: TrayEntry; content: Extract<Content, { type: Type }> }>;
  /** What of the content lets the view begin anew when it is another. */
  keyOf?: (content: Extract<Content, { type: Type }>) => string;
}

/** How each sort of content is shown before it is imported; a further sort is a view and a line. */
export const shows: { [Type in Content['type']]: Show<Type> } = {
  document: { View: DocumentGather },
  // Read by another separator it is another sheet: its recipe begins anew.
  sheets: { View: SheetGather, keyOf: (content) => JSON.stringify(content.sheets[0]?.dialect ?? '') },
  exchange: { View: ExchangeGather },
  model: { View: ModelGather },
  results: { View: ResultsGather },
};
