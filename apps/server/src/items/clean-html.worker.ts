import { ReadError, sanitiseRichText } from '@coomb/formats';

/** Cleans a long text. The first character tells: `=` before the text, `!` before why it was refused. */
export default function cleanInWorker(html: string): string {
  try {
    return `=${sanitiseRichText(html)}`;
  } catch (error) {
    if (error instanceof ReadError) return `!${error.message}`;
    throw error;
  }
}
