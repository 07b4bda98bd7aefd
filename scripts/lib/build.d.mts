/** The server and the thread that computes for it, side by side in a folder. */
export declare const bundleServer: (folder: string) => Promise<void>
