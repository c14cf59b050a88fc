import React from 'react';

const Tab = ({ label, active, onSelect, children }) => (
  <div role="tabpanel" hidden={!active}>
    <button onClick={onSelect}>{label}</button>
    {children}
  </div>
);

export default class RouteTabs extends React.Component {
  static Tab = Tab;
  static count = 0;

  static getDerivedStateFromProps(props, state) {
    if (props.selected !== state.given) {
      return { given: props.selected, selected: props.selected };
    }
    return null;
  }

  buttons = {};
  prefix = 'tabs' + RouteTabs.count++;
  state = { selected: this.props.selected || 0, given: this.props.selected, keys: 0 };

  select(index) {
    const { onSelect } = this.props;
    if (index !== this.state.selected) {
      this.setState({ selected: index });
      onSelect && onSelect(index, this.state.selected);
    }
  }

  handleKey = (event, count) => {
    const step = { ArrowRight: 1, ArrowLeft: -1 }[event.key];
    if (!step) return;
    const next = (this.state.selected + step + count) % count;
    this.setState({ selected: next, keys: this.state.keys + 1 }, () => {
      this.buttons[next] && this.buttons[next].focus();
    });
  };

  render() {
    const children = React.Children.toArray(this.props.children);
    const routes = children.length ? children : [<Tab key="n" label="North">Skail</Tab>, <Tab key="s" label="South">Holm</Tab>];
    return (
      <div className="tabs" data-keys={this.state.keys}>
        <div role="tablist" onKeyDown={(event) => this.handleKey(event, routes.length)}>
          {routes.map((route, index) => (
            <button
              key={index}
              id={`${this.prefix}-${index}`}
              ref={(button) => { this.buttons[index] = button; }}
              role="tab"
              aria-selected={index === this.state.selected}
              tabIndex={index === this.state.selected ? 0 : -1}
              onClick={() => this.select(index)}
            >
              {index + 1}
            </button>
          ))}
        </div>
        {routes.map((route, index) =>
          React.cloneElement(route, { active: index === this.state.selected, onSelect: () => this.select(index) })
        )}
      </div>
    );
  }
}
