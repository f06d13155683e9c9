export interface Cluster {
  readonly url: string;
  readonly folder: string;
  stop(): void;
  isRunning(): boolean;
  startAgain(): void;
}
export function startCluster(dataDir: string, options?: { durable?: boolean }): Promise<Cluster>;
export function freePort(): Promise<number>;
export function portIsTaken(port: number): Promise<boolean>;
