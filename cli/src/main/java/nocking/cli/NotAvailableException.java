package nocking.cli;

/** Something that the command line promises and this version does not do yet. */
final class NotAvailableException extends RuntimeException {
  private static final long serialVersionUID = 1L;

  NotAvailableException(String what) {
    super(what + " is not available yet");
  }
}
