export interface Member {
  id: number;
  name: string;
  duty: string;
  aboard: boolean;
  rank?: string;
}
