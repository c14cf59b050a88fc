import React from 'react';

export default class InfoDrawer extends React.Component {
  state = { open: false, content: null, visits: 0 };
  panel = React.createRef();
  opener = null;

  componentDidMount() {
    window.addEventListener('keydown', this.handleKey);
  }

  componentDidUpdate(_, previousState) {
    if (this.state.open && !previousState.open) {
      this.panel.current.focus();
    } else if (!this.state.open && previousState.open && this.opener) {
      this.opener.focus();
      this.opener = null;
    }
  }

  componentWillUnmount() {
    window.removeEventListener('keydown', this.handleKey);
  }

  handleKey = (event) => {
    if (event.key === 'Escape' && this.state.open) this.hide();
  };

  visit() {
    this.setState({ visits: this.state.visits + 1 });
  }

  show(event, topic) {
    this.opener = event.currentTarget;
    this.setState({
      open: true,
      content: (
        <article>
          <h4>{topic}</h4>
          <button onClick={() => this.visit()}>read on</button>
        </article>
      ),
    });
  }

  hide = () => {
    this.setState({ open: false }, () => {
      if (this.props.onHide) this.props.onHide(this.state.visits);
    });
  };

  render() {
    const { topics = ['Bikes', 'Dogs'] } = this.props;
    const { open, content, visits } = this.state;
    return (
      <div>
        {topics.map((topic) => (
          <button key={topic} onClick={(event) => this.show(event, topic)}>
            {topic}
          </button>
        ))}
        <p>{visits} pages read</p>
        {open && (
          <div ref={this.panel} tabIndex={-1} role="dialog">
            {content}
            <button onClick={this.hide}>close</button>
          </div>
        )}
      </div>
    );
  }
}
