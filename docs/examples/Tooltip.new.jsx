/* Copyright (c) 2015-present, salesforce.com, inc. All rights reserved */
/* Licensed under BSD 3-Clause - see LICENSE.txt or git.io/sfdc-license */

// # Tooltip

import React, {
	useCallback,
	useContext,
	useLayoutEffect,
	useReducer,
	useRef,
	useState,
} from 'react';
import PropTypes from 'prop-types';

import classNames from 'classnames';

import EventUtil from '../../utilities/event';
import { POPOVER_TOOLTIP } from '../../utilities/constants';
import generateId from '../../utilities/generate-id';

import Dialog from '../utilities/dialog';
import Icon from '../icon';
// eslint-disable-next-line import/no-cycle
import Button from '../button';

// This component's `checkProps` which issues warnings to developers about properties when in development mode (similar to React's built in development tools)
import checkProps from './check-props';
import componentDoc from './component.json';
import { IconSettingsContext } from '../icon-settings';

// ### Display Name
// Always use the canonical component name as the React display name.
const displayName = POPOVER_TOOLTIP;

const propTypes = {
	/**
	 * Alignment of the Tooltip relative to the element that triggers it.
	 */
	align: PropTypes.oneOf([
		'top',
		'top left',
		'top right',
		'right',
		'right top',
		'right bottom',
		'bottom',
		'bottom left',
		'bottom right',
		'left',
		'left top',
		'left bottom',
	]).isRequired,
	/**
	 * **Assistive text for accessibility**
	 * This object is merged with the default props object on every render.
	 * * `tooltipTipLearnMoreIcon`: This text is inside the info icon within the tooltip content and exists to "complete the sentence" for assistive tech users.
	 * * `triggerLearnMoreIcon`: This text is inside the info icon that triggers the tooltip in order to have text within the link.
	 */
	assistiveText: PropTypes.shape({
		tooltipTipLearnMoreIcon: PropTypes.string,
		triggerLearnMoreIcon: PropTypes.string,
	}),
	/**
	 * Pass the one element that triggers the Tooltip as a child. It must be an element with `tabIndex` or an element that already has a `tabIndex` set such as an anchor or a button, so that keyboard users can tab to it.
	 */
	children: PropTypes.node,
	/**
	 * Content inside Tooltip.
	 */
	content: PropTypes.node.isRequired,
	/**
	 * CSS classes to be added to the popover dialog. That is the element with `.slds-popover` on it.
	 */
	dialogClassName: PropTypes.oneOfType([
		PropTypes.array,
		PropTypes.object,
		PropTypes.string,
	]),
	/**
	 * Enabling this hides the default nubbin, replacing it with one attached directly to the tooltip trigger. Note: `hasStaticAlignment` should be set to `true` if using this feature as auto-flipping anchored nubbins are not currently supported.
	 */
	hasAnchoredNubbin: PropTypes.bool,
	/**
	 * By default, dialogs will flip their alignment (such as bottom to top) if they extend beyond a boundary element such as a scrolling parent or a window/viewpoint. `hasStaticAlignment` disables this behavior and allows this component to extend beyond boundary elements. _Not tested._
	 */
	hasStaticAlignment: PropTypes.bool,
	/**
	 * Delay on Tooltip closing in milliseconds. Defaults to 50
	 */
	hoverCloseDelay: PropTypes.number,
	/**
	 * Delay on Tooltip opening in milliseconds. Defaults to 0
	 */
	hoverOpenDelay: PropTypes.number,
	/**
	 * A unique ID is needed in order to support keyboard navigation, ARIA support, and connect the popover to the triggering element.
	 */
	id: PropTypes.string,
	/**
	 * **Text labels for internationalization**
	 * This object is merged with the default props object on every render.
	 * * `learnMoreAfter`: This label appears in the tooltip after the info icon.
	 * * `learnMoreBefore`: This label appears in the tooltip before the info icon.
	 */
	labels: PropTypes.shape({
		learnMoreAfter: PropTypes.string,
		learnMoreBefore: PropTypes.string,
	}),
	/**
	 * Forces tooltip to be open. A value of `false` will disable any interaction with the tooltip.
	 */
	isOpen: PropTypes.bool,
	/**
	 * Callback that returns an element or React `ref` to align the Tooltip with.
	 */
	onRequestTargetElement: PropTypes.func,
	/**
	 * CSS classes to be added to tag with `slds-tooltip-trigger`.
	 */
	triggerClassName: PropTypes.oneOfType([
		PropTypes.array,
		PropTypes.object,
		PropTypes.string,
	]),
	/**
	 * Please select one of the following:
	 * * `absolute` - (default) The dialog will use `position: absolute` and style attributes to position itself. This allows inverted placement or flipping of the dialog.
	 * * `overflowBoundaryElement` - The dialog will overflow scrolling parents. Use on elements that are aligned to the left or right of their target and don't care about the target being within a scrolling parent. Typically this is a popover or tooltip. Dropdown menus can usually open up and down if no room exists. In order to achieve this a portal element will be created and attached to `body`. This element will render into that detached render tree.
	 * * `relative` - No styling or portals will be used. Menus will be positioned relative to their triggers. This is a great choice for HTML snapshot testing.
	 */
	position: PropTypes.oneOf([
		'absolute',
		'overflowBoundaryElement',
		'relative',
	]),
	/**
	 * Custom styles to be added to wrapping triggering `div`.
	 */
	triggerStyle: PropTypes.object,
	/**
	 * Determines the theme of tooltip: for informative purpose (blue background) or warning purpose (red background). This used to be `variant`.
	 */
	theme: PropTypes.oneOf(['info', 'error']),
	/**
	 * Determines the type of the tooltip.
	 */
	variant: PropTypes.oneOf(['base', 'learnMore', 'list-item']),
};

const defaultAssistiveText = {
	tooltipTipLearnMoreIcon: 'this link',
	triggerLearnMoreIcon: 'Help',
};

// eslint-disable-next-line react/jsx-curly-brace-presence
const defaultContent = <span>{'Tooltip'}</span>;

const defaultLabels = {
	learnMoreAfter: 'to learn more.',
	learnMoreBefore: 'Click',
};

/**
 * The PopoverTooltip component is variant of the Lightning Design System Popover component. This component wraps an element that triggers it to open. It must be a focusable child element (either a button or an anchor), so that keyboard users can navigate to it.
 */
function Tooltip({
	assistiveText = defaultAssistiveText,
	align = 'top',
	content = defaultContent,
	labels = defaultLabels,
	hoverCloseDelay = 50,
	hoverOpenDelay = 0,
	position = 'absolute',
	theme = 'info',
	variant = 'base',
	...others
}) {
	const context = useContext(IconSettingsContext);
	const props = {
		assistiveText,
		align,
		content,
		labels,
		hoverCloseDelay,
		hoverOpenDelay,
		position,
		theme,
		variant,
		...others,
	};
	const [state, setState] = useReducer(
		(state, change) => ({ ...state, ...change }),
		{
			isOpen: false,
		}
	);
	const tooltipTimeout = useRef({});
	const generatedId = useRef();
	const isUnmounting = useRef();
	const trigger = useRef();
	const latestProps = useRef(props);
	latestProps.current = props;
	const latestState = useRef(state);
	latestState.current = state;

	// `checkProps` issues warnings to developers about properties (similar to React's built in development tools)
	useState(() => {
		checkProps(POPOVER_TOOLTIP, props, componentDoc);

		generatedId.current = generateId();
	});

	useLayoutEffect(() => {
		return () => {
			isUnmounting.current = true;
			clearTimeout(tooltipTimeout.current);
		};
	}, []);

	function getAnchoredNubbinStyles() {
		if (props.hasAnchoredNubbin) {
			const alignment = props.align.split(' ')[0];
			const nubbinContainerStyles = {
				height: '0',
				position: 'relative',
				width: '0',
			};
			const nubbinStyles = {
				backgroundColor: '#16325c',
				content: '',
				height: '1rem',
				position: 'absolute',
				transform: 'rotate(45deg)',
				width: '1rem',
			};
			const triggerDimensions = {
				height: trigger.current ? trigger.current.getBoundingClientRect().height : 0,
				width: trigger.current ? trigger.current.getBoundingClientRect().width : 0,
			};

			switch (alignment) {
				case 'bottom': {
					nubbinContainerStyles.left = `${triggerDimensions.width / 2}px`;
					nubbinContainerStyles.top = `${triggerDimensions.height}px`;
					nubbinStyles.left = '-8px';
					nubbinStyles.top = '3px';
					break;
				}
				case 'left': {
					nubbinContainerStyles.left = '0';
					nubbinContainerStyles.top = `${triggerDimensions.height / 2}px`;
					nubbinStyles.left = '-19px';
					nubbinStyles.top = '-9px';
					break;
				}
				case 'right': {
					nubbinContainerStyles.left = `${triggerDimensions.width}px`;
					nubbinContainerStyles.top = `${triggerDimensions.height / 2}px`;
					nubbinStyles.left = '3px';
					nubbinStyles.top = '-9px';
					break;
				}
				default: {
					nubbinContainerStyles.left = `${triggerDimensions.width / 2}px`;
					nubbinContainerStyles.top = '0';
					nubbinStyles.left = '-8px';
					nubbinStyles.top = '-19px';
				}
			}

			return (
				<React.Fragment>
					<style>{`#${getId()}:after, #${getId()}:before {
	display: none;
}`}</style>
					{getIsOpen() ? (
						<div style={nubbinContainerStyles}>
							<div style={nubbinStyles} />
						</div>
					) : null}
				</React.Fragment>
			);
		}

		return null;
	}

	function getContent() {
		let children;
		const noChildrenProvided = React.Children.count(props.children) === 0;

		if (noChildrenProvided && props.onClickTrigger) {
			children = [
				<a href="#" onClick={EventUtil.trappedHandler(props.onClickTrigger)}>
					<Icon
						category="utility"
						name="info"
						assistiveText={{
							label: props.assistiveText.triggerLearnMoreIcon,
						}}
						size="x-small"
					/>
				</a>,
			];
		} else if (noChildrenProvided) {
			children = [
				<Button
					aria-disabled
					assistiveText={{
						icon: props.assistiveText.triggerLearnMoreIcon,
					}}
					iconCategory="utility"
					iconName="info"
					variant="icon"
				/>,
			];
		} else {
			// eslint-disable-next-line prefer-destructuring
			children = props.children;
		}

		return React.Children.map(children, (child, i) =>
			React.cloneElement(child, {
				key: i, // eslint-disable-line react/no-array-index-key
				'aria-describedby': getIsOpen() ? getId() : undefined,
				onBlur: handleMouseLeave,
				onFocus: handleMouseEnter,
				onMouseEnter: handleMouseEnter,
				onMouseLeave: handleMouseLeave,
				onKeyDown: handleKeyDown,
			})
		);
	}

	function getId() {
		return props.id || generatedId.current;
	}

	function getIsOpen() {
		return props.isOpen === undefined ? state.isOpen : props.isOpen;
	}

	function getTooltip() {
		const isOpen = getIsOpen();
		const { align } = props;

		// REMOVE AT NEXT BREAKING CHANGE (v1.0 or v0.9)
		const deprecatedWay = props.variant === 'error';

		return isOpen ? (
			<Dialog
				closeOnTabKey
				hasNubbin
				contentsClassName={classNames(
					'slds-popover',
					'slds-popover_tooltip',
					{
						'slds-theme_error': props.theme === 'error' || deprecatedWay,
					},
					props.dialogClassName
				)}
				align={align}
				context={context}
				hasStaticAlignment={props.hasStaticAlignment}
				onClose={handleCancel}
				onRequestTargetElement={() => getTooltipTarget()}
				onMouseLeave={handleCancel}
				position={props.position}
				variant="tooltip"
				containerProps={{
					id: getId(),
				}}
			>
				{getTooltipContent()}
			</Dialog>
		) : (
			<span />
		);
	}

	function getTooltipContent() {
		return (
			<div className="slds-popover__body">
				{props.content}
				{props.variant === 'learnMore' && props.onClickTrigger ? (
					<div className="slds-m-top_x-small" aria-hidden="true">
						{props.labels.learnMoreBefore}{' '}
						<Icon
							assistiveText={{
								label: props.assistiveText.tooltipTipLearnMoreIcon,
							}}
							category="utility"
							inverse
							name="info"
							size="x-small"
						/>{' '}
						{props.labels.learnMoreAfter}{' '}
					</div>
				) : null}
			</div>
		);
	}

	function getTooltipTarget() {
		if (props.onRequestTargetElement) {
			return props.onRequestTargetElement();
		}

		// for backwards compatibility
		if (props.target) {
			return props.target;
		}

		return trigger.current;
	}

	const handleCancel = useCallback(() => {
		clearTimeout(tooltipTimeout.current);

		setState({
			isOpen: false,
		});
	}, []);

	const handleMouseEnter = useCallback(() => {
		clearTimeout(tooltipTimeout.current);

		tooltipTimeout.current = setTimeout(() => {
			if (!isUnmounting.current) {
				setState({
					isOpen: true,
				});
			}
		}, latestProps.current.hoverOpenDelay);
	}, []);

	const handleMouseLeave = useCallback((e) => {
		e.stopPropagation();
		clearTimeout(tooltipTimeout.current);

		tooltipTimeout.current = setTimeout(() => {
			const isHoveringTooltip =
				e.relatedTarget?.classList?.contains('slds-popover_tooltip') ||
				e.relatedTarget?.classList?.contains('slds-popover__body');

			if (!isUnmounting.current && !isHoveringTooltip) {
				setState({
					isOpen: false,
				});
			}
		}, latestProps.current.hoverCloseDelay);
	}, []);

	const handleKeyDown = useCallback((e) => {
		e.stopPropagation();

		tooltipTimeout.current = setTimeout(() => {
			if (!isUnmounting.current && e.key === 'Escape') {
				setState({
					isOpen: false,
				});
			}
		}, latestProps.current.hoverCloseDelay);
	}, []);

	const saveTriggerRef = useCallback((component) => {
		trigger.current = component;
		// yes, this is a re-render triggered by a render.
		// Dialog/Popper.js cannot place the popover until
		// the trigger/target DOM node is mounted. This
		// way `findDOMNode` is not called and parent
		// DOM nodes are not queried.
		if (!latestState.current.triggerRendered) {
			setState({ triggerRendered: true });
		}
	}, []);

	const containerStyles = {
		display: 'inline-block',
		lineHeight: '1',
		...props.triggerStyle,
	};

	return (
		<div
			className={classNames('slds-tooltip-trigger', props.triggerClassName)}
			style={containerStyles}
			ref={saveTriggerRef}
		>
			{getAnchoredNubbinStyles()}
			{getContent()}
			{getTooltip()}
		</div>
	);
}

Tooltip.displayName = displayName;
Tooltip.propTypes = propTypes;

export default Tooltip;
