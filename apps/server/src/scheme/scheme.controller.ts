import { changeScheme, compareScheme, getScheme, getSchemeFile, getSchemeFileSchema, openSchemeEffect, previewScheme, schemeFileSchema } from '@coomb/contract';
import { Controller, Inject } from '@nestjs/common';
import { z } from 'zod';
import { Call, type Input, Route } from '../http/route.js';
import { SchemeService } from './scheme.service.js';

@Controller()
export class SchemeController {
  constructor(@Inject(SchemeService) private readonly scheme: SchemeService) {}

  @Route(getSchemeFileSchema)
  schema() {
    return z.toJSONSchema(schemeFileSchema, { io: 'input' });
  }

  @Route(getScheme)
  get(@Call(getScheme) { params }: Input<typeof getScheme>) {
    return this.scheme.get(params.project);
  }

  @Route(getSchemeFile)
  file(@Call(getSchemeFile) { params }: Input<typeof getSchemeFile>) {
    return this.scheme.writeFile(params.project);
  }

  @Route(compareScheme)
  compare(@Call(compareScheme) { params, body }: Input<typeof compareScheme>) {
    return this.scheme.compare(params.project, body);
  }

  @Route(previewScheme)
  preview(@Call(previewScheme) { params, body }: Input<typeof previewScheme>) {
    return this.scheme.preview(params.project, body);
  }

  @Route(openSchemeEffect)
  open(@Call(openSchemeEffect) { params, query, body }: Input<typeof openSchemeEffect>) {
    return this.scheme.open(params.project, params.effect, body, query);
  }

  @Route(changeScheme)
  change(@Call(changeScheme) { params, body, person }: Input<typeof changeScheme>) {
    return this.scheme.change(params.project, person, body);
  }
}
