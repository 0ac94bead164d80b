// Jest's transform for one mutant: as always, but for one file, in which a piece of the text is replaced. No file is written.
const { createHash } = require('node:crypto');
const { createTransformer } = require('@swc/jest');

const mutant = JSON.parse(process.env.MUTANT);

module.exports = {
  createTransformer(options) {
    const plain = createTransformer(options);
    const changed = (text, file) =>
      file === mutant.file ? text.slice(0, mutant.from) + mutant.put + text.slice(mutant.to) : text;
    return {
      ...plain,
      process: (text, file, settings) => plain.process(changed(text, file), file, settings),
      processAsync: (text, file, settings) => plain.processAsync(changed(text, file), file, settings),
      getCacheKey: (text, file, settings) =>
        createHash('sha256')
          .update(plain.getCacheKey(changed(text, file), file, settings))
          .digest('hex'),
    };
  },
};
