import { addFields, createCollection, createProject, getProject, listProjects, renameProject, setStanding } from '@coomb/contract';
import { Controller, Inject } from '@nestjs/common';
import { Call, type Input, Route } from '../http/route.js';
import { FieldsService } from './fields.service.js';
import { ProjectsService } from './projects.service.js';

@Controller()
export class ProjectsController {
  constructor(
    @Inject(ProjectsService) private readonly projects: ProjectsService,
    @Inject(FieldsService) private readonly fields: FieldsService,
  ) {}

  @Route(listProjects)
  list() {
    return this.projects.list();
  }

  @Route(createProject)
  create(@Call(createProject) { body, person }: Input<typeof createProject>) {
    return this.projects.create(person, body as Parameters<ProjectsService['create']>[1]);
  }

  @Route(setStanding)
  stand(@Call(setStanding) { params, body, person }: Input<typeof setStanding>) {
    return this.projects.stand(params.project, person, body.standing);
  }

  @Route(getProject)
  get(@Call(getProject) { params }: Input<typeof getProject>) {
    return this.projects.get(params.project);
  }

  @Route(renameProject)
  rename(@Call(renameProject) { params, body, person }: Input<typeof renameProject>) {
    return this.projects.rename(params.project, person, body.name);
  }

  @Route(createCollection)
  createCollection(@Call(createCollection) { params, body, person }: Input<typeof createCollection>) {
    return this.projects.createCollection(params.project, person, body);
  }

  @Route(addFields)
  async addFields(@Call(addFields) { params, body, person }: Input<typeof addFields>) {
    return { fields: await this.fields.add(params.project, person, body.fields) };
  }
}
