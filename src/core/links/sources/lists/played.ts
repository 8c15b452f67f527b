/** Endings of what the player plays: sound, films, still pictures. */
export const PLAYED_ENDINGS =
	'wav flac mp3 m4a aac ogg oga opus aif aiff wv ape mp4 m4v mov mkv webm avi mpg mpeg ts png jpg jpeg webp'.split(' ');
/** A name with one of them. */
export const PLAYED = new RegExp(`\\.(?:${PLAYED_ENDINGS.join('|')})$`, 'i');
