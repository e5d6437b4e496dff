/** One address for everything. Views load when they are first opened. */
export declare const router: import("react-router").DataRouter;
