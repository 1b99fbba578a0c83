/** In place of style sheets, which tests of components do not look at. */
export {}
