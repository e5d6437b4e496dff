export { startServer, type RunningServer, type ServerOptions } from './start-server.js';
export { FolderInUseError } from './database/folder-lock.js';
export { openDatabase } from './database/database.js';
export { runCommand } from './cli/run-command.js';
export { ProjectStateRepo } from './project-state/project-state.repo.js';
