/** A machine under load answers more slowly than the second that is waited for by itself. */
require("@testing-library/react").configure({ asyncUtilTimeout: 10_000 });
