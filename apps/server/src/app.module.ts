import { join } from 'node:path';
import { type DynamicModule, Module } from '@nestjs/common';
import { APP_GUARD, APP_INTERCEPTOR } from '@nestjs/core';
import { BackupController } from './backup/backup.controller.js';
import { COPIES, CopiesService, type CopySchedule } from './backup/copies.service.js';
import { UpkeepService } from './backup/upkeep.service.js';
import { BaselinesController } from './baselines/baselines.controller.js';
import { BaselinesService } from './baselines/baselines.service.js';
import { CheckController } from './check/check.controller.js';
import { CheckService } from './check/check.service.js';
import { ErrandsController } from './errands/errands.controller.js';
import { ErrandsService } from './errands/errands.service.js';
import { FindingGrounds } from './findings/finding-ground.js';
import { FindingTrend } from './findings/finding-trend.js';
import { FindingsController } from './findings/findings.controller.js';
import { FindingsService } from './findings/findings.service.js';
import { DoubtsService } from './findings/doubts.service.js';
import { TwinsService } from './findings/twins.service.js';
import { MendingService } from './findings/mending.service.js';
import { ImpactController } from './impact/impact.controller.js';
import { ImpactService } from './impact/impact.service.js';
import { ChangeLinksService } from './links/change-links.service.js';
import { LinkFactsKeeper } from './link-rows/link-facts.js';
import { PasteLinksService } from './links/paste-links.service.js';
import { LinkListService } from './links/link-list.service.js';
import { SuspectsService } from './links/suspects.service.js';
import type { OpenDatabase } from './database/database.js';
import { FilesController } from './files/files.controller.js';
import { FilesRepo } from './files/files.repo.js';
import { GatherController } from './gather/gather.controller.js';
import { PicturesController } from './files/pictures.controller.js';
import { PicturesService } from './files/pictures.service.js';
import { FileReader } from './tray/file-reader.js';
import { GatherRepo } from './gather/gather.repo.js';
import { ImportAgainService } from './gather/import-again/import-again.service.js';
import { ImportService } from './gather/import.service.js';
import { TRAY_FOLDER, TrayService } from './tray/tray.service.js';
import { SystemController } from './http/system.controller.js';
import { CLOCK, type Clock, DATABASE, DISK_ROOM, LIFE, OPEN_DATABASE } from './http/tokens.js';
import { KeptAnswers } from './project-state/kept-answers.js';
import { FindController } from './find/find.controller.js';
import { FindRepo } from './find/find.repo.js';
import { FindService } from './find/find.service.js';
import { ItemFactsKeeper } from './items/item-facts.js';
import { ItemReadingService } from './items/item-reading.service.js';
import { ItemsController } from './items/items.controller.js';
import { HtmlCleaner } from './items/clean-html.js';
import { OutlineKeeper } from './items/outline-keeper.js';
import { ItemsRepo } from './items/items.repo.js';
import { ItemsService } from './items/items.service.js';
import { ChangeItemsService } from './items/change-items.service.js';
import { ReshapeService } from './items/reshape.service.js';
import { JobsController } from './jobs/jobs.controller.js';
import { JobsService } from './jobs/jobs.service.js';
import { LedgerController } from './changes/changes.controller.js';
import { LedgerRepo } from './ledger/ledger.repo.js';
import { LedgerReader } from './ledger/ledger-reader.js';
import { PastRepo } from './ledger/past.repo.js';
import { StagedChanges } from './ledger/staged-changes.js';
import { LedgerService } from './changes/ledger.service.js';
import { LinksController } from './links/links.controller.js';
import { RelatedService } from './links/related.service.js';
import { LinkDifferenceService } from './links/link-difference.service.js';
import { LinksService } from './links/links.service.js';
import { SuggestionsService } from './links/suggestions.service.js';
import { LiveController } from './changes/live.controller.js';
import { LiveService } from './live/live.service.js';
import { ProjectStateRepo } from './project-state/project-state.repo.js';
import { ProjectStates } from './project-state/project-states.js';
import { PersonGuard } from './persons/person-guard.js';
import { PersonNames } from './persons/person-names.js';
import { PersonsController } from './persons/persons.controller.js';
import { PersonsRepo } from './persons/persons.repo.js';
import { PersonsService } from './persons/persons.service.js';
import { ProjectGuard } from './projects/project-guard.js';
import { ProjectsController } from './projects/projects.controller.js';
import { ProjectsRepo } from './projects/projects.repo.js';
import { FieldsService } from './projects/fields.service.js';
import { ProjectsService } from './projects/projects.service.js';
import { RecipesController } from './recipes/recipes.controller.js';
import { BoundaryController } from './boundary/boundary.controller.js';
import { BoundaryService } from './boundary/boundary.service.js';
import { CompositionController } from './composition/composition.controller.js';
import { CompositionService } from './composition/composition.service.js';
import { DrawingsController } from './drawings/drawings.controller.js';
import { MadeDrawingsService } from './drawings/made-drawings.service.js';
import { DrawingsRepo } from './drawing-rows/drawings.repo.js';
import { DrawingsService } from './drawings/drawings.service.js';
import { RecipesService } from './recipes/recipes.service.js';
import { ReportsController } from './reports/reports.controller.js';
import { ReportsRepo } from './reports/reports.repo.js';
import { ClipService } from './sources/clip.service.js';
import { SavedViewsController } from './saved-views/saved-views.controller.js';
import { SavedViewsService } from './saved-views/saved-views.service.js';
import { SchemeController } from './scheme/scheme.controller.js';
import { SchemeRepo } from './scheme/scheme.repo.js';
import { SchemeService } from './scheme/scheme.service.js';
import { SetsController } from './sets/sets.controller.js';
import { SetsService } from './sets/sets.service.js';
import { CellsService } from './registers/cells.service.js';
import { ColoursService } from './lenses/colours.service.js';
import { LensesController } from './lenses/lenses.controller.js';
import { LensesService } from './lenses/lenses.service.js';
import { RegisterGrounds } from './lenses/register-grounds.js';
import { MatricesController } from './matrices/matrices.controller.js';
import { MatricesService } from './matrices/matrices.service.js';
import { ComparingController } from './comparing/comparing.controller.js';
import { ComparingService } from './comparing/comparing.service.js';
import { StructuresController } from './structures/structures.controller.js';
import { LinkNumbersService } from './structures/link-numbers.service.js';
import { MadeGroupsService } from './structures/made-groups.service.js';
import { StructuresService } from './structures/structures.service.js';
import { RegistersController } from './registers/registers.controller.js';
import { RegistersService } from './registers/registers.service.js';
import { RunsController } from './runs/runs.controller.js';
import { RunsRepo } from './runs/runs.repo.js';
import { TraceTreeController } from './trace-tree/trace-tree.controller.js';
import { TraceTreeService } from './trace-tree/trace-tree.service.js';
import { TrayController } from './tray/tray.controller.js';
import { SourcesController } from './sources/sources.controller.js';
import { SourcesRepo } from './gather/sources.repo.js';
import { SourcesService } from './sources/sources.service.js';
import { ExportsController } from './exports/exports.controller.js';
import { UsagesController } from './usages/usages.controller.js';
import { UsagesService } from './usages/usages.service.js';
import { WaitingEndsController } from './waiting-ends/waiting-ends.controller.js';
import { WaitingEndsService } from './waiting-ends/waiting-ends.service.js';
import { FileWriter } from './exports/file-writer.js';
import { ExportsRepo } from './exports/exports.repo.js';
import { ExportsService } from './exports/exports.service.js';
import { ReportsService } from './reports/reports.service.js';

/** What is made outside Nest. */
export interface Outside {
  database: OpenDatabase;
  clock: Clock;
  copies: CopySchedule;
}

@Module({})
export class AppModule {
  static with(outside: Outside): DynamicModule {
    return {
      module: AppModule,
      controllers: [
        SystemController,
        BackupController,
        LiveController,
        LedgerController,
        ProjectsController,
        PersonsController,
        SchemeController,
        SetsController,
        ItemsController,
        DrawingsController,
        CompositionController,
        BoundaryController,
        TraceTreeController,
        FindController,
        LinksController,
        ErrandsController,
        FindingsController,
        ImpactController,
        MatricesController,
        StructuresController,
        ComparingController,
        RegistersController,
        LensesController,
        WaitingEndsController,
        UsagesController,
        GatherController,
        PicturesController,
        FilesController,
        TrayController,
        RunsController,
        JobsController,
        CheckController,
        RecipesController,
        SourcesController,
        ExportsController,
        ReportsController,
        BaselinesController,
        SavedViewsController,
      ],
      providers: [
        { provide: DATABASE, useValue: outside.database.db },
        { provide: OPEN_DATABASE, useValue: outside.database },
        { provide: LIFE, useValue: outside.database.life },
        { provide: DISK_ROOM, useValue: outside.database.room },
        { provide: COPIES, useValue: outside.copies },
        { provide: CLOCK, useValue: outside.clock },
        { provide: TRAY_FOLDER, useValue: join(outside.database.folder, 'tray') },
        CopiesService,
        UpkeepService,
        ProjectStateRepo,
        ProjectStates,
        LiveService,
        LedgerRepo,
        PastRepo,
        StagedChanges,
        LedgerReader,
        LedgerService,
        JobsService,
        ProjectsRepo,
        { provide: APP_GUARD, useClass: ProjectGuard },
        { provide: APP_GUARD, useClass: PersonGuard },
        { provide: APP_INTERCEPTOR, useClass: PersonNames },
        PersonsRepo,
        PersonsService,
        FieldsService,
        SchemeRepo,
        SchemeService,
        SetsService,
        ProjectsService,
        ItemsRepo,
        DrawingsRepo,
        DrawingsService,
        MadeDrawingsService,
        CompositionService,
        BoundaryService,
        TraceTreeService,
        WaitingEndsService,
        UsagesService,
        OutlineKeeper,
        HtmlCleaner,
        ItemReadingService,
        KeptAnswers,
        FindRepo,
        FindService,
        ItemsService,
        ReshapeService,
        ChangeItemsService,
        SavedViewsService,
        LinksService,
        SuggestionsService,
        SuspectsService,
        LinkFactsKeeper,
        ItemFactsKeeper,
        RegisterGrounds,
        MatricesService,
        LinkNumbersService,
        MadeGroupsService,
        StructuresService,
        ComparingService,
        RegistersService,
        LensesService,
        ColoursService,
        CellsService,
        LinkListService,
        ChangeLinksService,
        PasteLinksService,
        ErrandsService,
        TwinsService,
        DoubtsService,
        FindingGrounds,
        FindingTrend,
        FindingsService,
        MendingService,
        ImpactService,
        LinkDifferenceService,
        RelatedService,
        GatherRepo,
        FilesRepo,
        RunsRepo,
        PicturesService,
        FileReader,
        TrayService,
        ImportService,
        ImportAgainService,
        RecipesService,
        ExportsRepo,
        FileWriter,
        ExportsService,
        SourcesRepo,
        SourcesService,
        ClipService,
        CheckService,
        ReportsRepo,
        ReportsService,
        BaselinesService,
      ],
    };
  }
}
