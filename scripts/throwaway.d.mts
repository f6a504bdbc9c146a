export interface Cluster {
  readonly url: string;
  readonly port: number;
  readonly folder: string;
  stop(mode?: 'fast' | 'immediate'): void;
  restart(): Promise<unknown>;
  remove(): void;
}
export function throwawayCluster(): Promise<Cluster>;
