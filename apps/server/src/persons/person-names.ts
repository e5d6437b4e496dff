import { type CallHandler, type ExecutionContext, Inject, Injectable, type NestInterceptor } from '@nestjs/common';
import { map, type Observable } from 'rxjs';
import { PersonsService } from './persons.service.js';

/** Where replies name a person. */
const KEYS = new Set(['person', 'changedBy', 'confirmedBy', 'importedBy', 'by', 'owner', 'giver', 'approver']);

/** Puts the names that people go by now into whatever leaves: rows hold ids. */
@Injectable()
export class PersonNames implements NestInterceptor {
  constructor(@Inject(PersonsService) private readonly persons: PersonsService) {}

  intercept(_context: ExecutionContext, next: CallHandler): Observable<unknown> {
    return next.handle().pipe(map((reply) => this.name(reply)));
  }

  private name(value: unknown): unknown {
    if (typeof value !== 'object' || value === null) return value;
    if (Array.isArray(value)) {
      // Columns hold no names: one look tells.
      if (typeof value[0] !== 'object') return value;
      return value.map((one) => this.name(one));
    }
    if (Object.getPrototypeOf(value) !== Object.prototype) return value;
    return Object.fromEntries(
      Object.entries(value).map(([key, one]) => [key, KEYS.has(key) && typeof one === 'string' ? this.persons.nameOf(one) : this.name(one)]),
    );
  }
}
