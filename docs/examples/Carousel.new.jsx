/* Copyright (c) 2015-present, salesforce.com, inc. All rights reserved */
/* Licensed under BSD 3-Clause - see LICENSE.txt or git.io/sfdc-license */

// # Carousel Component

// Implements the [Carousel design pattern](https://www.lightningdesignsystem.com/components/carousel/) in React.

import React, { useCallback, useLayoutEffect, useReducer, useRef } from 'react';
import PropTypes from 'prop-types';
import classnames from 'classnames';

import { CAROUSEL } from '../../utilities/constants';

import generateId from '../../utilities/generate-id';

import {
	canUseDOM,
	canUseEventListeners,
} from '../../utilities/execution-environment';

import CarouselIndicators from './private/carousel-indicators';
import PreviousNextCarouselNavigator from './private/previous-next-carousel-navigator';
import CarouselItem from './private/carousel-item';
import AutoplayButton from './private/auto-play-button';

// ### Event Helpers
import KEYS from '../../utilities/key-code';
import EventUtil from '../../utilities/event';

/* eslint-disable jsx-a11y/no-static-element-interactions */

// ### Default Props

const defaultAssistiveText = {
	autoplayButton: 'Start / Stop auto-play',
	nextPanel: 'Next Panel',
	previousPanel: 'Previous Panel',
};

/**
 * A carousel allows multiple pieces of featured content to occupy an allocated amount of space.
 * Currently panel index and auto play cannot be controlled by the app.
 */
function Carousel({
	assistiveText = defaultAssistiveText,
	autoplayInterval = 4000,
	hasAutoplay: hasAutoplayProp = false,
	hasPreviousNextPanelNavigation: hasPreviousNextPanelNavigationProp = false,
	isInfinite: isInfiniteProp = false,
	itemsPerPanel = 1,
	...others
}) {
	// ### Default Props
	const props = {
		assistiveText,
		autoplayInterval,
		hasAutoplay: hasAutoplayProp,
		hasPreviousNextPanelNavigation: hasPreviousNextPanelNavigationProp,
		isInfinite: isInfiniteProp,
		itemsPerPanel,
		...others,
	};
	const [state, setState] = useReducer(
		(state, change) => ({ ...state, ...change }),
		{
			currentPanel: props.currentPanel !== undefined ? props.currentPanel : 0,
			indicatorsHaveFocus: false,
			isAutoplayOn:
				props.isAutoplayOn !== undefined
					? props.isAutoplayOn
					: props.hasAutoplay,
			stageWidth: 0,
			translateX: -1000000,
		}
	);
	const nrOfPanels = useRef(null);
	if (nrOfPanels.current === null) {
		nrOfPanels.current = Math.ceil(props.items.length / props.itemsPerPanel);
	}
	const stageItem = useRef(null);
	const generatedId = useRef(null);
	if (generatedId.current === null) {
		generatedId.current = generateId();
	}
	const autoplayId = useRef();
	const stageWidth = useRef();
	const latestProps = useRef(props);
	latestProps.current = props;
	const latestState = useRef(state);
	latestState.current = state;
	const afterwards = useRef([]);

	useLayoutEffect(() => {
		return () => {
			if (canUseEventListeners) {
				window.removeEventListener('resize', setDimensions, false);
			}
			stopAutoplay({ unmountAutoplayEvent: true }, true);
		};
	}, []);

	useLayoutEffect(() => {
		if (
			canUseDOM &&
			stageItem !== undefined &&
			stageItem.current !== undefined &&
			stageItem.current.offsetWidth !== undefined
		) {
			stageWidth.current = stageItem.current.offsetWidth;
		}

		if (canUseEventListeners) {
			window.addEventListener('resize', setDimensions, false);
		}

		changeTranslationAutomatically();

		if (getIsAutoplayOn()) {
			startAutoplay({ mountAutoplayEvent: true });
		}
	}, []);

	const previousProps = useRef(null);
	useLayoutEffect(() => {
		const prevProps = previousProps.current;
		previousProps.current = props;
		if (prevProps === null) return;
		if (
			props.currentPanel !== undefined &&
			prevProps.currentPanel !== props.currentPanel
		) {
			changeTranslationAutomatically();
		}
		if (
			props.isAutoplayOn !== undefined &&
			prevProps.isAutoplayOn !== props.isAutoplayOn
		) {
			if (props.isAutoplayOn) {
				startAutoplay({ updateAutoplayEvent: true });
			} else {
				stopAutoplay({ updateAutoplayEvent: true }, true);
			}
		}
		if (
			prevProps.items.length !== props.items.length ||
			prevProps.itemsPerPanel !== props.itemsPerPanel
		) {
			nrOfPanels.current = Math.ceil(props.items.length / props.itemsPerPanel);
		}
	});

	const onNextPanelHandler = (event) => {
		let next = getCurrentPanel() + 1;
		if (next > nrOfPanels.current - 1) {
			next = 0;
		}
		setCurrentPanel(event, next, changeTranslationAutomatically);
	};

	const onPreviousPanelHandler = (event) => {
		let prev = getCurrentPanel() - 1;
		if (prev < 0) {
			prev = nrOfPanels.current - 1;
		}
		setCurrentPanel(event, prev, changeTranslationAutomatically);
	};

	const onIndicatorBlur = useCallback(() => {
		setState({ indicatorsHaveFocus: false });
	}, []);

	const onIndicatorClickHandler = useCallback((event, panel) => {
		setCurrentPanel(event, panel, changeTranslationAutomatically);
		setState({ indicatorsHaveFocus: true });
		if (getIsAutoplayOn()) {
			stopAutoplay(event);
		}
	}, []);

	const onIndicatorFocus = useCallback((event) => {
		setState({ indicatorsHaveFocus: true });
		if (getIsAutoplayOn()) {
			stopAutoplay(event);
		}
	}, []);

	const onAutoplayBtnClick = (event) => {
		const isAutoplayOn = getIsAutoplayOn();

		if (props.onRequestAutoplayToggle) {
			props.onRequestAutoplayToggle(event, { isAutoplayOn });
		} else {
			const actionToTake = isAutoplayOn ? stopAutoplay : startAutoplay;

			setState({
				isAutoplayOn: !isAutoplayOn,
			});
			actionToTake(event);
		}
	};

	const getPanelId = useCallback(({ carouselId, itemId }) => `content-id-${carouselId}-${itemId}`, []);

	function getCurrentPanel() {
		return latestProps.current.currentPanel !== undefined
			? latestProps.current.currentPanel
			: latestState.current.currentPanel;
	}

	function getIsAutoplayOn() {
		return latestProps.current.isAutoplayOn !== undefined
			? latestProps.current.isAutoplayOn
			: latestState.current.isAutoplayOn;
	}

	const setDimensions = useCallback(() => {
		if (
			canUseDOM &&
			stageItem !== undefined &&
			stageItem.current !== undefined &&
			stageItem.current.offsetWidth !== undefined
		) {
			afterwards.current.push(changeTranslationAutomatically);
			setState({ stageWidth: stageItem.current.offsetWidth });
		}
	}, []);

	const setTranslationAmount = (amount, cb) => {
		afterwards.current.push(cb);
		setState({ translateX: amount });
	};

	const setCurrentPanel = (event, amount, cb) => {
		if (latestProps.current.onRequestPanelChange) {
			latestProps.current.onRequestPanelChange(event, {
				currentPanel: getCurrentPanel(),
				requestedPanel: amount,
			});
		} else {
			afterwards.current.push(cb);
			setState({ currentPanel: amount });
		}
	};

	const startAutoplay = useCallback((event) => {
		autoplayId.current = setInterval(() => {
			if (canGoToNext()) {
				onNextPanelHandler(event);
			} else if (latestProps.current.isInfinite) {
				setCurrentPanel(event, 0, changeTranslationAutomatically);
			} else {
				stopAutoplay(event);
			}
		}, latestProps.current.autoplayInterval);
	}, []);

	const stopAutoplay = useCallback((event, ignoreCallbacksAndStateUpdates) => {
		if (autoplayId.current) {
			clearInterval(autoplayId.current);
		}

		if (!ignoreCallbacksAndStateUpdates) {
			if (latestProps.current.onRequestAutoplayToggle) {
				latestProps.current.onRequestAutoplayToggle(event, {
					isAutoplayOn: getIsAutoplayOn(),
				});
			} else {
				setState({ isAutoplayOn: false });
			}
		}
	}, []);

	const changeTranslationAutomatically = useCallback(() => {
		setTranslationAmount(
			-((latestState.current.stageWidth || stageWidth.current) * getCurrentPanel())
		);
	}, []);

	const canGoToNext = () => getCurrentPanel() < nrOfPanels.current - 1;

	const canGoToPrevious = () => getCurrentPanel() > 0;

	const handleKeyDown = (event) => {
		const keyDownCallbacks = {
			[KEYS.LEFT]: () => {
				if (latestProps.current.isInfinite || canGoToPrevious()) {
					onPreviousPanelHandler(event);
					setState({ indicatorsHaveFocus: true });
					if (getIsAutoplayOn()) {
						stopAutoplay(event);
					}
				}
			},
			[KEYS.RIGHT]: () => {
				if (latestProps.current.isInfinite || canGoToNext()) {
					onNextPanelHandler(event);
					setState({ indicatorsHaveFocus: true });
					if (getIsAutoplayOn()) {
						stopAutoplay(event);
					}
				}
			},
		};

		if (keyDownCallbacks[event.keyCode]) {
			EventUtil.trapImmediate(event);
			keyDownCallbacks[event.keyCode]();
		}
	};

	useLayoutEffect(() => {
		afterwards.current.splice(0).forEach((run) => run?.());
	});

	const { hasAutoplay, hasPreviousNextPanelNavigation, isInfinite } = props;
	const currentPanel = getCurrentPanel();
	const id = props.id || generatedId.current;
	const isPreviousBtnDisabled = !(isInfinite || canGoToPrevious());
	const isNextBtnDisabled = !(isInfinite || canGoToNext());
	const itemWidth =
		(state.stageWidth || stageWidth.current) / props.itemsPerPanel;
	const carouselMargins = hasPreviousNextPanelNavigation
		? { marginLeft: '44px', marginRight: '44px' }
		: {};
	return (
		<div
			className={classnames('slds-carousel', props.className)}
			id={id}
			onKeyDown={handleKeyDown}
		>
			<div className="slds-grid_vertical slds-col slds-path__scroller">
				{hasAutoplay && (
					<AutoplayButton
						assistiveText={props.assistiveText.autoplayButton}
						isAutoplayOn={getIsAutoplayOn()}
						onClick={onAutoplayBtnClick}
					/>
				)}
				<div className="slds-is-relative" style={carouselMargins}>
					{hasPreviousNextPanelNavigation && (
						<PreviousNextCarouselNavigator
							assistiveText={props.assistiveText.previousPanel}
							iconName="chevronleft"
							isDisabled={isPreviousBtnDisabled}
							onClick={(event) => {
								if (getIsAutoplayOn()) {
									stopAutoplay(event);
								}
								onPreviousPanelHandler(event);
							}}
							inlineStyle={{ left: '-38px' }}
						/>
					)}
					<div ref={stageItem} className="slds-carousel__stage slds-show">
						<div
							className="slds-carousel__panels slds-is-relative"
							style={{
								transform: `translateX(${state.translateX}px)`,
							}}
						>
							{props.items.map((item, index) => (
								<CarouselItem
									carouselId={id}
									getPanelId={getPanelId}
									onClick={(event) => {
										props.onItemClick(event, { item });
									}}
									onFocus={(event) => {
										if (getIsAutoplayOn()) {
											stopAutoplay(event);
										}
									}}
									onRenderItem={props.onRenderItem}
									{...item}
									isInCurrentPanel={
										index >= currentPanel * props.itemsPerPanel &&
										index <
											currentPanel * props.itemsPerPanel +
												props.itemsPerPanel
									}
									itemWidth={itemWidth}
									key={item.id}
									panelIndex={Math.ceil((index + 1) / props.itemsPerPanel) - 1}
								/>
							))}
						</div>
					</div>
					{hasPreviousNextPanelNavigation && (
						<PreviousNextCarouselNavigator
							assistiveText={props.assistiveText.nextPanel}
							iconName="chevronright"
							isDisabled={isNextBtnDisabled}
							onClick={(event) => {
								if (getIsAutoplayOn()) {
									stopAutoplay(event);
								}
								onNextPanelHandler(event);
							}}
							inlineStyle={{ right: '-38px' }}
						/>
					)}
				</div>
				<CarouselIndicators
					noOfIndicators={nrOfPanels.current}
					carouselId={id}
					currentIndex={currentPanel}
					getPanelId={getPanelId}
					hasFocus={state.indicatorsHaveFocus}
					onBlur={onIndicatorBlur}
					onClick={onIndicatorClickHandler}
					onFocus={onIndicatorFocus}
					items={props.items}
					itemsPerPanel={props.itemsPerPanel}
				/>
			</div>
		</div>
	);
}

// ### Display Name
// Always use the canonical component name as the React display name.
Carousel.displayName = CAROUSEL;

// ### Prop Types
Carousel.propTypes = {
	/**
	 * Description of the carousel items for screen-readers.
	 */
	assistiveText: PropTypes.object,
	/**
	 * Interval for the autoplay iteration
	 */
	autoplayInterval: PropTypes.number,
	/**
	 * CSS classes that are applied to the main 'slds-carousel' classed component container
	 */
	className: PropTypes.oneOfType([
		PropTypes.array,
		PropTypes.object,
		PropTypes.string,
	]),
	/**
	 * Dictates the currently active/visible carousel panel. Use with `onRequestPanelChange` for a controlled carousel component. If not provided, the carousel will manage this itself via state.
	 */
	currentPanel: PropTypes.number,
	/**
	 * Boolean showing whether the autoplay button is available or not
	 */
	hasAutoplay: PropTypes.bool,
	/**
	 * Boolean for displaying the navigation indicators (left/right arrows) of the carousel
	 */
	hasPreviousNextPanelNavigation: PropTypes.bool,
	/**
	 * Id of component, if desired. If not provided an id is automatically generated
	 */
	id: PropTypes.string,
	/**
	 * Boolean that dictates whether autoplay is active or not. Use with `onRequestAutoplayToggle` for a controlled carousel component.
	 */
	isAutoplayOn: PropTypes.bool,
	/**
	 * Boolean for infinite loop navigation. Note: if not true autoplay will stop automatically at the last panel.
	 */
	isInfinite: PropTypes.bool,
	/**
	 * * **Array of item objects used by the default carousel item renderer.**
	 * Each object can contain:
	 * * `id`: The id of the carousel item. [REQUIRED]
	 * * `heading`: Primary string that will be used as the heading
	 * * `description`: Secondary string that is used to describe the item
	 * * `buttonLabel`: If assigned a call to button action will be rendered with this text, if unassigned no button is rendered
	 * * `imageAssistiveText`: Image alt text, if not present heading will be used instead
	 * * `href`: Used for item link, if not provided '#' is used instead
	 * * `src`: Item image src value
	 */
	items: PropTypes.array.isRequired,
	/**
	 * Number of items to be displayed at a time in the carousel
	 */
	itemsPerPanel: PropTypes.number,
	/**
	 * Accepts a custom carousel item rendering function
	 */
	onRenderItem: PropTypes.func,
	/**
	 * Called whenever `isAutoplayOn` is requested to be toggled on or off. Use with `isAutoplayOn` prop for a controlled carousel component. Passes an event object and a data object with the current `isAutoplayOn` value as an attribute.
	 */
	onRequestAutoplayToggle: PropTypes.func,
	/**
	 * Called whenever the panel is requested to change due to user interaction or auto-play. Use with `currentPanel` for a controlled carousel component. Passes an event object and a data object with `currentPanel` and `requestedPanel` attributes.
	 */
	onRequestPanelChange: PropTypes.func,
	/**
	 * Handler for clicking on a carousel item
	 */
	onItemClick: PropTypes.func,
};

export default Carousel;
