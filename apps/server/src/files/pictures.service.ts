import { createHash } from 'node:crypto';
import { readFile } from 'node:fs/promises';
import { CoombError, mostPictureBytes, type StoredPicture } from '@coomb/contract';
import { pictureIn } from '@coomb/formats';
import { Inject, Injectable } from '@nestjs/common';
import { CLOCK, type Clock } from '../http/tokens.js';
import { FilesRepo } from './files.repo.js';

/** Pictures that people put into texts. */
@Injectable()
export class PicturesService {
  constructor(
    @Inject(FilesRepo) private readonly repo: FilesRepo,
    @Inject(CLOCK) private readonly clock: Clock,
  ) {}

  /** Stores a picture once per project, by its bytes. Throws `input-invalid` for what browsers do not show. */
  async store(project: string, name: string, path: string): Promise<StoredPicture> {
    const bytes = await readFile(path);
    if (bytes.length > mostPictureBytes)
      throw new CoombError(
        'too-large',
        `${name} has ${Math.ceil(bytes.length / 1024 / 1024)} MB. A picture in a text may have ${mostPictureBytes / 1024 / 1024} MB: make it smaller.`,
      );
    const mediaType = pictureIn(bytes);
    if (!mediaType) throw new CoombError('input-invalid', `${name} is no picture that can be shown. PNG, JPEG, GIF, WebP, BMP and SVG can.`);
    const sha256 = createHash('sha256').update(bytes).digest('hex');
    const id = (await this.repo.findPicture(project, sha256)) ?? this.clock.newId();
    await this.repo.insertPicture({ id, projectId: project, sourceId: null, name, mediaType, bytes, sha256 });
    return { id, mediaType, address: `/api/projects/${project}/files/${id}` };
  }
}
