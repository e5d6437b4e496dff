export { startServer, type RunningServer, type ServerOptions } from './start-server.js';
export { FolderInUseError } from './database/folder-lock.js';
export { openDatabase, type OpenDatabase } from './database/database.js';
export { DataFolderError } from './database/data-folder.js';
export { runCommand } from './cli/run-command.js';
export { ledgerEntities } from './ledger/entities.js';
export { ProjectStateRepo } from './project-state/project-state.repo.js';
