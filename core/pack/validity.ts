/** Where something holds. What is absent holds everywhere. Years are model years, both ends included. */
export interface Scope {
  years?: [from: number, to: number];
  engines?: string[];
  markets?: string[];
}
