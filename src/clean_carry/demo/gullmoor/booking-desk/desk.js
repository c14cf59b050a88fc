// The booking desk of Gullmoor Ferries: what its pages share.
angular
  .module('gullmoor.desk', [])
  .constant('deskConfig', { smallest: 8 })
  .service('noticeMarkup', function () {
    // *word* is strong, a line that begins with a dash an item.
    this.of = function (text) {
      var plain = String(text || '').replace(/[&<>]/g, function (sign) {
        return { '&': '&amp;', '<': '&lt;', '>': '&gt;' }[sign];
      });
      return plain.replace(/\*([^*]+)\*/g, '<strong>$1</strong>').replace(/^- (.*)$/gm, '<em>$1</em><br>');
    };
  });

angular.module('gullmoor.desk').controller('DeskController', function () {
  var desk = this;

  desk.booking = { seats: 2 };
  desk.capacity = 6;
  desk.notice = '*Spring tide* at noon\n- berth North dries out';
  desk.berths = [
    { name: 'South', length: 14 },
    { name: 'North', length: 9 },
    { name: 'East', length: 5 },
    { name: 'West', length: 20, taken: true }
  ];
  desk.tell = function (what) {
    desk.told = what;
  };
});
