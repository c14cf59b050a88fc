angular.module('freight', []);
