/** Families that mean whatever the system has of a kind (CSS Fonts 4, 2.1.3), and what scripts call them by. */
const GENERIC = new Set(
  'serif sans-serif monospace cursive fantasy system-ui ui-serif ui-sans-serif ui-monospace ui-rounded math emoji fangsong inherit initial unset -apple-system blinkmacsystemfont'.split(
    ' ',
  ),
);

/** Families that come with a common system: Windows, macOS and iOS, Android, or the usual desktops of Linux. */
const SYSTEM = new Set(
  `aharoni|al bayan|american typewriter|andale mono|apple color emoji|apple sd gothic neo|apple symbols|arial|
arial black|arial hebrew|arial narrow|arial rounded mt bold|arial unicode ms|arimo|avenir|avenir next|
avenir next condensed|bahnschrift|baskerville|big caslon|bodoni 72|book antiqua|bookman old style|bradley hand|
brush script mt|calibri|cambria|cambria math|candara|cantarell|century gothic|century schoolbook|chalkboard|
chalkboard se|chalkduster|charter|cochin|comic sans ms|consolas|constantia|copperplate|corbel|courier|
courier new|cousine|david|dejavu sans|dejavu sans mono|dejavu serif|didot|dotum|droid sans|droid sans mono|
droid serif|ebrima|fira sans|franklin gothic medium|freesans|freeserif|futura|gabriola|gadugi|garamond|geneva|
georgia|gill sans|gulim|hancom gothic|heiti sc|heiti tc|helvetica|helvetica neue|herculanum|hiragino kaku gothic pro|
hiragino kaku gothic pron|hiragino mincho pron|hiragino sans|hiragino sans gb|hoefler text|impact|ink free|
iowan old style|javanese text|kefa|khmer ui|kohinoor devanagari|lao ui|leelawadee|leelawadee ui|liberation mono|
liberation sans|liberation serif|lucida bright|lucida console|lucida grande|lucida sans|lucida sans unicode|
luminari|malgun gothic|marker felt|meiryo|meiryo ui|menlo|microsoft jhenghei|microsoft sans serif|microsoft yahei|
mingliu|monaco|mongolian baiti|ms gothic|ms mincho|ms pgothic|ms sans serif|ms serif|mv boli|myanmar text|
nirmala ui|noteworthy|noto color emoji|noto sans|noto sans cjk jp|noto sans mono|noto serif|nyala|optima|osaka|
oxygen|palatino|palatino linotype|papyrus|perpetua|phosphate|pingfang hk|pingfang sc|pingfang tc|plantagenet cherokee|
rockwell|roboto|roboto condensed|roboto mono|roboto slab|san francisco|sans serif|savoye let|segoe print|segoe script|
segoe ui|segoe ui emoji|segoe ui historic|segoe ui symbol|segoe ui variable|sf mono|sf pro|sf pro display|sf pro text|
simhei|simsun|sitka|snell roundhand|songti sc|sukhumvit set|sylfaen|symbol|tahoma|thonburi|times|times new roman|
tinos|traditional arabic|trebuchet ms|ubuntu|ubuntu mono|verdana|webdings|wingdings|yu gothic|yu gothic ui|yu mincho|
zapf dingbats|zapfino`
    .replaceAll('\n', '')
    .split('|'),
);

/** Whether nearly every visitor has a family, or something in its place. */
export function isCommonFamily(family: string): boolean {
  const name = family.toLowerCase();
  return GENERIC.has(name) || SYSTEM.has(name);
}
