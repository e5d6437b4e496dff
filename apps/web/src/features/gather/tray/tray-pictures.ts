import { buildUrl, getTrayPicture } from '@coomb/contract';
import { createContext, useContext } from 'react';
import { useProject } from '../../../shared/live/project-queries';

/** Id of the file in the tray that is shown. */
export const TrayFile = createContext<string | undefined>(undefined);

/** Markup whose pictures are fetched from the file in the tray: they are stored only when it is imported. */
export function useTrayPictures(): (html: string) => string {
  const project = useProject().id;
  const tray = useContext(TrayFile);
  return (html) => {
    if (!html.includes('coomb-picture:')) return html;
    return html.replace(/<img src="coomb-picture:([^"]*)"/g, (whole, name: string) => {
      if (!tray) return whole;
      const address = buildUrl(getTrayPicture.path, { project, tray }, { name: name.replace(/&amp;/g, '&') });
      return `<img src="${address.replace(/&/g, '&amp;')}"`;
    });
  };
}
