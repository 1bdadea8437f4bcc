/** The id of the tape's line, for an undo. */
export class PostedDto {
  activityId: number;
}
