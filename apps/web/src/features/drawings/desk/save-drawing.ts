import { notifyError } from '../../../shared/ui/notices';
import { saveFile } from '../../../shared/save-file';

const named = (name: string, ending: string) => `${name.replace(/[\\/:*?"<>|]+/g, ' ').trim() || 'drawing'}.${ending}`;

export function saveSvg(name: string, svg: string): void {
  saveFile(named(name, 'svg'), new Blob([svg], { type: 'image/svg+xml' }));
}

/** Pixels that a browser surely makes a picture of. */
const MOST_PIXELS = 60_000_000;

/** Twice as fine as the screen, less for very large drawings. */
export async function savePng(name: string, svg: string): Promise<void> {
  try {
    const image = new Image();
    image.src = URL.createObjectURL(new Blob([svg], { type: 'image/svg+xml' }));
    await image.decode();
    const { width, height } = image;
    const scale = Math.min(2, Math.sqrt(MOST_PIXELS / (width * height)));
    const canvas = new OffscreenCanvas(Math.round(width * scale), Math.round(height * scale));
    canvas.getContext('2d')!.drawImage(image, 0, 0, canvas.width, canvas.height);
    URL.revokeObjectURL(image.src);
    saveFile(named(name, 'png'), await canvas.convertToBlob({ type: 'image/png' }));
  } catch (error) {
    notifyError(error);
  }
}

/** Prints the drawing alone, as large as the paper. */
export function printSvg(svg: string): void {
  const frame = document.createElement('iframe');
  Object.assign(frame.style, { position: 'fixed', width: '0', height: '0', border: '0' });
  frame.srcdoc = `<!doctype html><style>@page{margin:10mm}svg{width:100%;height:auto;max-height:95vh}body{margin:0}</style>${svg}`;
  frame.onload = () => {
    frame.contentWindow!.onafterprint = () => frame.remove();
    frame.contentWindow!.print();
  };
  document.body.append(frame);
}
