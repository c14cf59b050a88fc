// file
import React, { Component } from 'react'; // import

/** doc */
export default class Notes /* name */ extends Component {
  // state
  state = {
    /* a */ a: 1, // after a
  }; // after state

  // loose, above nothing

  constructor(props) {
    // before super
    super(props);
    // before bind
    this.go = this.go.bind(this); // after bind
  }

  /* go */ go(/* none */) {
    // in go
    this.setState({ /* patch */ a: 2 /* two */ }); // after write
  } // after go

  // render
  render() {
    // first
    const { a /* a? */ } = this.state; // taken
    return <p onClick={this.go}>{/* shown */ a}</p>; // last
  }
  // end
}
// eof
