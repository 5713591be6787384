package balance

// LeastChange is the inner problem of a stage, for the tests that hold it against another method.
var LeastChange = leastChange
