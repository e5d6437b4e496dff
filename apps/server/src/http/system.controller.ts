import { buildOpenApi } from '@coomb/contract';
import { Controller, Get } from '@nestjs/common';
import { version } from '../version.js';

@Controller()
export class SystemController {
  private readonly document = buildOpenApi(version);

  @Get('/health')
  health() {
    return { status: 'ready', version };
  }

  @Get('/openapi.json')
  openapi() {
    return this.document;
  }
}
