/* A part of its own: it is wanted only where no server answers, and larger than the page itself. */
export { setupAnew } from '@decurio/core';
