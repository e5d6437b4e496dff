import { type CanActivate, type ExecutionContext, Inject, Injectable } from '@nestjs/common';
import { Reflector } from '@nestjs/core';
import { needs } from '@coomb/contract';
import type { Request } from 'express';
import { rememberPerson } from '../http/caller.js';
import { ENDPOINT_NAME, readPersonName } from '../http/route.js';
import { PersonsService } from './persons.service.js';

/** Finds out who asks, before any part of the server looks at it; whoever changes something for the first time becomes a person. */
@Injectable()
export class PersonGuard implements CanActivate {
  constructor(
    @Inject(PersonsService) private readonly persons: PersonsService,
    @Inject(Reflector) private readonly reflector: Reflector,
  ) {}

  async canActivate(context: ExecutionContext): Promise<boolean> {
    const name = readPersonName(context.switchToHttp().getRequest<Request>());
    const endpoint = this.reflector.get<string | undefined>(ENDPOINT_NAME, context.getHandler());
    const isReading = endpoint === undefined || needs[endpoint] === 'read';
    rememberPerson(isReading ? (this.persons.findByName(name) ?? name) : await this.persons.getByName(name));
    return true;
  }
}
