import { dropTrayEntry, getTrayEntry, getTrayPicture, listTray, readTrayAs, uploadFile } from '@coomb/contract';
import { Controller, Inject, Req, Res } from '@nestjs/common';
import type { Request, Response } from 'express';
import type { DiskRoom } from '../database/disk-room.js';
import { sendFile } from '../http/send-file.js';
import { Call, type Input, Route } from '../http/route.js';
import { DISK_ROOM } from '../http/tokens.js';
import { assertSize, FileReceiver } from './receive-file.js';
import { TrayService } from './tray.service.js';

/** Files that were handed in and of which nothing is stored yet. */
@Controller()
export class TrayController {
  private readonly receiver: FileReceiver;

  constructor(
    @Inject(TrayService) private readonly tray: TrayService,
    @Inject(DISK_ROOM) private readonly room: DiskRoom,
  ) {
    this.receiver = new FileReceiver(tray.incoming);
  }

  @Route(uploadFile)
  async upload(@Call(uploadFile) { params }: Input<typeof uploadFile>, @Req() request: Request, @Res({ passthrough: true }) response: Response) {
    const announced = Number(request.headers['content-length']) || 0;
    assertSize(announced);
    await this.tray.assertRoom(params.project, announced);
    await this.room.assertFor(announced, 'Handing in this file');
    const { name, path } = await this.receiver.receive(request, response);
    return this.tray.put(params.project, name, path);
  }

  @Route(listTray)
  listTray(@Call(listTray) { params }: Input<typeof listTray>) {
    return this.tray.list(params.project);
  }

  @Route(dropTrayEntry)
  dropTray(@Call(dropTrayEntry) { params }: Input<typeof dropTrayEntry>) {
    return { dropped: this.tray.remove(params.project, params.tray) };
  }

  @Route(getTrayEntry)
  getTray(@Call(getTrayEntry) { params }: Input<typeof getTrayEntry>) {
    return this.tray.get(params.project, params.tray);
  }

  @Route(readTrayAs)
  readTrayAs(@Call(readTrayAs) { params, body }: Input<typeof readTrayAs>) {
    return this.tray.readAs(params.project, params.tray, body);
  }

  @Route(getTrayPicture)
  async trayPicture(@Call(getTrayPicture) { params, query }: Input<typeof getTrayPicture>, @Res() response: Response) {
    sendFile(response, { name: query.name, ...(await this.tray.getPicture(params.project, params.tray, query.name)) });
  }
}
