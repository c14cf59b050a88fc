import React, { Component } from "react"

export default class Tabbed extends Component {
	state = { on: true }

	componentDidMount() {
		this.id = setInterval(() => this.flip(), 100)
	}

	componentWillUnmount() {
		clearInterval(this.id)
		this.props.onGone(`a
	b`)
	}

	flip() {
		this.setState({ on: !this.state.on })
	}

	render() {
		return (
			<b>
				{this.state.on ? "on" : "off"}
			</b>
		)
	}
}
