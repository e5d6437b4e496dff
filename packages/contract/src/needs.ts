/** What a call needs that somebody may do: read a project, write in it, or approve. Today everybody may do everything. */
export type Need = 'read' | 'write' | 'approve';

/** Of every call by its name, in one place. What reads takes `asOf` as well: the number of a change, to read things as they stood after it. */
export const needs: Readonly<Record<string, Need>> = {
  ...each('read', ['explainCoverage', 'exportCollection', 'exportItems', 'findItems', 'getBackup', 'getBatch', 'getExportRecipe', 'getFile', 'getHistory']),
  ...each('read', [
    'getItem',
    'getItemsRecipe',
    'getJob',
    'getLinkDifference',
    'getOutline',
    'getOutlineSince',
    'getProject',
    'getReadiness',
    'getReport',
    'getReportDocument',
  ]),
  ...each('read', ['getReportPage', 'getSourceFile', 'getTrace', 'getTrayEntry', 'getTrayPicture', 'getUndo', 'getUpkeep', 'listChanges', 'listJobs']),
  ...each('read', [
    'listLinks',
    'listProjects',
    'listRecipes',
    'listReports',
    'listRunResults',
    'listRuns',
    'listSavedViews',
    'listSources',
    'listTray',
    'live',
    'sayWhere',
    'openFigure',
  ]),
  ...each('read', ['compareScheme', 'getScheme', 'getSchemeFile', 'getSchemeFileSchema', 'openSchemeEffect', 'previewScheme']),
  ...each('read', ['listBaselines', 'getBoundary', 'listUsages', 'listUsed', 'planDrawing', 'readCollection', 'readSource', 'suggestLinks', 'tryExport']),
  ...each('write', ['addMember', 'makeContext', 'addRelated', 'endWaiting', 'joinWaitingEnd', 'keepDrawing', 'placeDrawing', 'setBoxes', 'setInUsage']),
  ...each('write', ['addFields', 'cancelJob', 'checkFile', 'clipPassage', 'compareFile', 'createCollection', 'createItem', 'createLinks', 'createProject']),
  ...each('write', [
    'dropTrayEntry',
    'editItem',
    'editLink',
    'importFile',
    'keepRecipe',
    'keepSource',
    'moveItem',
    'readTrayAs',
    'redo',
    'removeClipping',
    'removeLinks',
  ]),
  ...each('read', ['listPersons', 'planMerge', 'planSet', 'getDrawing', 'listDrawings', 'listUses', 'listWholes', 'growTrace']),
  ...each('write', ['createSet', 'editCollection', 'editSet', 'mergeSets', 'renamePerson', 'setStanding', 'withdrawCollection']),
  ...each('write', [
    'renameProject',
    'restoreItems',
    'keepView',
    'renameView',
    'withdrawView',
    'setKinds',
    'splitItem',
    'joinItems',
    'storePicture',
    'undo',
    'uploadFile',
    'withdrawItems',
    'withdrawRecipe',
  ]),
  ...each('approve', ['confirmLinks', 'createBaseline', 'createReport', 'createWaiver', 'changeScheme', 'withdrawBaseline', 'withdrawWaiver']),
};

function each(need: Need, names: readonly string[]): Record<string, Need> {
  return Object.fromEntries(names.map((name) => [name, need]));
}
