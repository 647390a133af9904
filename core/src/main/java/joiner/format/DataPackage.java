package joiner.format;

/** Words of the Data Package standard (version 2) that reading and writing share. */
final class DataPackage {
  /** The file that describes the package. */
  static final String FILE = "datapackage.json";

  /** The one property under which everything stands that goes beyond the standard. */
  static final String MORE = "joiner:more";

  /** Identifies version 2 of the standard. */
  static final String SCHEMA = "https://datapackage.org/profiles/2.0/datapackage.json";

  /** Version of what stands under {@link #MORE}. */
  static final int VERSION = 1;

  /** Greatest length of an e-mail address (RFC 5321, section 4.5.3.1.3). */
  static final int EMAIL_LENGTH = 254;

  static final int HASH_LENGTH = 100;

  /**
   * Greatest length of a web address that is in practice accepted everywhere (common practice, no
   * source).
   */
  static final int ADDRESS_LENGTH = 2048;

  private DataPackage() {}
}
