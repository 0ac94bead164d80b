/** Where the small pictures of the glossary are, by the name of their files. */
const files = import.meta.glob<string>('../../../../docs/pictures/terms/*.svg', {
  query: '?url',
  import: 'default',
  eager: true,
});

/** The picture beside a word of the glossary. */
export const pictureOf = (term: string): string | undefined =>
  files[`../../../../docs/pictures/terms/${term.replaceAll(' ', '-')}.svg`];
