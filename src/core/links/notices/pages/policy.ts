/** The page may run its own script and read its own files; nothing comes from anywhere else, and text never becomes script. */
export const POLICY =
	"default-src 'none'; script-src 'self'; style-src 'self'; img-src 'self'; media-src 'self'; font-src 'self'; connect-src 'self'; base-uri 'none'; form-action 'none'";
