import { rm } from 'node:fs/promises';
import { storePicture } from '@coomb/contract';
import { Controller, Inject, Req, Res } from '@nestjs/common';
import type { Request, Response } from 'express';
import type { DiskRoom } from '../database/disk-room.js';
import { FileReceiver } from '../tray/receive-file.js';
import { TrayService } from '../tray/tray.service.js';
import { Call, type Input, Route } from '../http/route.js';
import { DISK_ROOM } from '../http/tokens.js';
import { PicturesService } from './pictures.service.js';

@Controller()
export class PicturesController {
  private readonly receiver: FileReceiver;

  constructor(
    @Inject(TrayService) tray: TrayService,
    @Inject(PicturesService) private readonly pictures: PicturesService,
    @Inject(DISK_ROOM) private readonly room: DiskRoom,
  ) {
    this.receiver = new FileReceiver(tray.incoming);
  }

  @Route(storePicture)
  async store(@Call(storePicture) { params }: Input<typeof storePicture>, @Req() request: Request, @Res({ passthrough: true }) response: Response) {
    await this.room.assertFor(Number(request.headers['content-length']) || 0, 'Storing this picture');
    const { name, path } = await this.receiver.receive(request, response);
    try {
      return await this.pictures.store(params.project, name, path);
    } finally {
      await rm(path, { force: true });
    }
  }
}
