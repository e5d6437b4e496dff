import { buildOpenApi } from '@coomb/contract';
import { Controller, Get } from '@nestjs/common';

export const version = '0.1.0';

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
