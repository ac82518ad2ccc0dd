package wayhome

// ClearOf is for the tests.
var ClearOf = clearOf
