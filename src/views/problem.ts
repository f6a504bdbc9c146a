export interface FieldProblem {
  readonly field: string;
  readonly message: string;
}

/** Body of an `application/problem+json` answer. Source: RFC 9457, Problem Details for HTTP APIs (2023). */
export interface ProblemBody {
  readonly type: string;
  readonly title: string;
  readonly status: number;
  readonly detail: string;
  readonly code: string;
  readonly whatIsSafe: string;
  readonly whatToDo: string;
  readonly fields?: readonly FieldProblem[];
}

/** A message of the server for a field, when it named that field. */
export function fieldMessage(problem: ProblemBody | null, field: string): string | undefined {
  return problem?.fields?.find((candidate) => candidate.field === field)?.message;
}
