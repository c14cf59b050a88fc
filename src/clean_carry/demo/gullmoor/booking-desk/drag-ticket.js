// Tickets are dragged onto a sailing: a behaviour of whatever element it stands on.
angular.module('gullmoor.desk').directive('dragTicket', ['$document', function ($document) {
  return {
    restrict: 'A',
    link: function (scope, element, attrs) {
      element.attr('draggable', 'true');
      element.on('dragstart', function (event) {
        element.addClass('dragged');
        event.dataTransfer.setData('text', attrs.dragTicket);
      });
      $document.on('dragend', release);
      scope.$on('$destroy', function () {
        $document.off('dragend', release);
      });

      function release() {
        element.removeClass('dragged');
      }
    }
  };
}]);
