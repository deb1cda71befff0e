/** Why something cannot be done: what it was to be done to is gone, or is not as it has to be. */
export type CommandFaultCode =
  | 'questionGone'
  | 'bankQuestionGone'
  | 'paperGone'
  | 'paperQuestionGone'
  | 'paperInUse'
  | 'paperNotReady'
  | 'paperSat'
  | 'paperChangedSince'
  | 'noAttemptToSetAside'
  | 'noAttemptEnded'
  | 'noTimeLeft'
  | 'notSetAside'
  | 'attemptGone'
  | 'studentGone'
  | 'sittingOrStudentGone'
  | 'sameStudent'
  | 'rehearsalGone'
  | 'notRehearsal'
  | 'requestGone'
  | 'shareGone'
  | 'printGone'
  | 'printChanged'
  | 'scanGone'
  | 'copyTaken'
  | 'fileChanged'
  | 'deskElsewhere';

/** Thrown by a command that cannot be done; nothing of it has been. The words stand in `words/faults`. */
export class CommandFault extends Error {
  constructor(
    readonly code: CommandFaultCode,
    /** What it is about, by name. */
    readonly detail = '',
  ) {
    // Of an error that comes out of a worker the message is all there is.
    super(detail ? `${code} ${detail}` : code);
  }
}
