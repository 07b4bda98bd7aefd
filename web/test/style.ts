// Style sheets mean nothing to the component tests.
export {}
