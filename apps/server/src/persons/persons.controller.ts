import { listPersons, renamePerson } from '@coomb/contract';
import { Controller, Inject } from '@nestjs/common';
import { Call, type Input, Route } from '../http/route.js';
import { PersonsService } from './persons.service.js';

@Controller()
export class PersonsController {
  constructor(@Inject(PersonsService) private readonly persons: PersonsService) {}

  @Route(listPersons)
  list() {
    return this.persons.list();
  }

  @Route(renamePerson)
  rename(@Call(renamePerson) { params, body }: Input<typeof renamePerson>) {
    return this.persons.rename(params.person, body.name);
  }
}
