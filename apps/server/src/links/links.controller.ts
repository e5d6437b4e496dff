import {
  addRelated,
  changeLinks,
  confirmLinks,
  createLinks,
  editLink,
  findLinkIds,
  getLinkDifference,
  listLinks,
  findSuspectsAt,
  listSuspects,
  pasteLinks,
  planLinks,
  queryLinks,
  refuseSuggestions,
  removeLinks,
  saveLinkList,
  suggestLinks,
} from '@coomb/contract';
import { Controller, Inject, Res } from '@nestjs/common';
import type { Response } from 'express';
import { Call, type Input, Route } from '../http/route.js';
import { restOf, writeCsvRows } from '../tables/rows.js';
import { sendTable } from '../tables/send-table.js';
import { writeWorkbook } from '../tables/write-workbook.js';
import { RelatedService } from './related.service.js';
import { LinkDifferenceService } from './link-difference.service.js';
import { ChangeLinksService } from './change-links.service.js';
import { LinkListService } from './link-list.service.js';
import { LinksService } from './links.service.js';
import { PasteLinksService } from './paste-links.service.js';
import { SuggestionsService } from './suggestions.service.js';
import { SuspectsService } from './suspects.service.js';

@Controller()
export class LinksController {
  constructor(
    @Inject(LinksService) private readonly links: LinksService,
    @Inject(RelatedService) private readonly related: RelatedService,
    @Inject(SuggestionsService) private readonly suggestions: SuggestionsService,
    @Inject(LinkListService) private readonly lists: LinkListService,
    @Inject(ChangeLinksService) private readonly changing: ChangeLinksService,
    @Inject(PasteLinksService) private readonly pasting: PasteLinksService,
    @Inject(SuspectsService) private readonly suspects: SuspectsService,
    @Inject(LinkDifferenceService) private readonly differences: LinkDifferenceService,
  ) {}

  @Route(addRelated)
  add(@Call(addRelated) { params, body, person }: Input<typeof addRelated>) {
    return this.related.add(params.project, person, params.item, body);
  }

  @Route(listLinks)
  list(@Call(listLinks) { params, query }: Input<typeof listLinks>) {
    return this.links.list(params.project, query.left, query.right);
  }

  @Route(createLinks)
  create(@Call(createLinks) { params, body, person }: Input<typeof createLinks>) {
    return this.links.create(params.project, person, body.links, body.origin, body.skipRefused);
  }

  @Route(pasteLinks)
  paste(@Call(pasteLinks) { params, body, person }: Input<typeof pasteLinks>) {
    return this.pasting.paste(params.project, person, body);
  }

  @Route(planLinks)
  plan(@Call(planLinks) { params, body }: Input<typeof planLinks>) {
    return this.links.plan(params.project, body.left, body.right);
  }

  @Route(refuseSuggestions)
  refuse(@Call(refuseSuggestions) { params, body, person }: Input<typeof refuseSuggestions>) {
    return this.suggestions.refuse(params.project, person, body.pairs);
  }

  @Route(editLink)
  edit(@Call(editLink) { params, body, person }: Input<typeof editLink>) {
    return this.links.edit(params.project, person, params.link, body);
  }

  @Route(removeLinks)
  remove(@Call(removeLinks) { params, body, person }: Input<typeof removeLinks>) {
    return this.links.remove(params.project, person, body.links);
  }

  @Route(queryLinks)
  query(@Call(queryLinks) { params, query }: Input<typeof queryLinks>) {
    return this.lists.query(params.project, query);
  }

  @Route(saveLinkList)
  async save(@Call(saveLinkList) { params, query }: Input<typeof saveLinkList>, @Res() response: Response) {
    const rows = this.lists.rowsOf(params.project, query);
    // The first of them tells whether there is such a list; a workbook begins before it is asked for rows.
    const all = restOf(await rows.next(), rows);
    await sendTable(response, 'Links', params.format, params.format === 'xlsx' ? writeWorkbook('Links', all) : writeCsvRows(all));
  }

  @Route(findLinkIds)
  findIds(@Call(findLinkIds) { params, query }: Input<typeof findLinkIds>) {
    return this.lists.findIds(params.project, query);
  }

  @Route(changeLinks)
  change(@Call(changeLinks) { params, body, person }: Input<typeof changeLinks>) {
    return this.changing.change(params.project, person, body);
  }

  @Route(listSuspects)
  listSuspects(@Call(listSuspects) { params, query }: Input<typeof listSuspects>) {
    return this.suspects.list(params.project, query.limit, query.lens);
  }

  @Route(findSuspectsAt)
  findSuspectsAt(@Call(findSuspectsAt) { params, body }: Input<typeof findSuspectsAt>) {
    return this.suspects.findAt(params.project, body.items);
  }

  @Route(confirmLinks)
  confirm(@Call(confirmLinks) { params, body, person }: Input<typeof confirmLinks>) {
    return this.links.confirm(params.project, person, body.links, body.reason);
  }

  @Route(getLinkDifference)
  difference(@Call(getLinkDifference) { params }: Input<typeof getLinkDifference>) {
    return this.differences.get(params.project, params.link);
  }

  @Route(suggestLinks)
  suggest(@Call(suggestLinks) { params, query }: Input<typeof suggestLinks>) {
    return this.suggestions.suggest(params.project, params.item, query.collection, query.most);
  }
}
