import { mostPictureBytes } from '@coomb/contract';
import { fetchPicture, uploadPicture } from '../api/client';
import { isAtHand } from './pasted';

/** Stores a picture in the project; gives its address for a text. Throws an Error that says why not. */
export async function storeOne(project: string, file: File): Promise<string> {
  if (file.size > mostPictureBytes)
    throw new Error(`${file.name} is larger than ${mostPictureBytes / 1024 / 1024} MB. Make the picture smaller, then put it in.`);
  return (await uploadPicture(project, file)).address;
}

/** Markup whose pictures are stored in this project, whatever they came as. Those that cannot be had are left out; gives how many. */
export async function storePictures(project: string, html: string): Promise<{ html: string; lost: number }> {
  const { body } = new DOMParser().parseFromString(html, 'text/html');
  let lost = 0;
  for (const picture of body.querySelectorAll('img')) {
    const address = picture.getAttribute('src') ?? '';
    if (address.startsWith(`/api/projects/${project}/`)) continue;
    try {
      if (!isAtHand(address)) throw new Error('Lies elsewhere.');
      const bytes = await fetchPicture(address);
      picture.setAttribute('src', await storeOne(project, bytes));
    } catch {
      picture.remove();
      lost++;
    }
  }
  return { html: body.innerHTML, lost };
}
