/* eslint-disable max-lines */
/* eslint-disable react/no-access-state-in-setstate */
/* eslint-disable prefer-destructuring */
/* eslint-disable max-lines */
/* Copyright (c) 2015-present, salesforce.com, inc. All rights reserved */
/* Licensed under BSD 3-Clause - see LICENSE.txt or git.io/sfdc-license */

/* eslint-disable jsx-a11y/role-has-required-aria-props */

// # Lookup Component

// Implements the [Lookup design pattern](https://latest-204.lightningdesignsystem.com/components/lookups) in React.
// Based on SLDS v2.1.0-dev

// ## Dependencies

// ### React
import React, {
	forwardRef,
	useCallback,
	useContext,
	useImperativeHandle,
	useLayoutEffect,
	useReducer,
	useRef,
	useState,
} from 'react';

import PropTypes from 'prop-types';
import escapeRegExp from 'lodash.escaperegexp';
import isEqual from 'lodash.isequal';
import classNames from 'classnames';

// This component's `checkProps` which issues warnings to developers about properties
// when in development mode (similar to React's built in development tools)
import checkProps from './check-props';

// Children
import Dialog from '../utilities/dialog';
import Button from '../button';
import Icon from '../icon';
import InputIcon from '../icon/input-icon';
import Input from '../input';

// ### Event Helpers
import EventUtil from '../../utilities/event';
import KEYS from '../../utilities/key-code';

import Menu from './menu';

import { LOOKUP } from '../../utilities/constants';
import { IconSettingsContext } from '../icon-settings';

/**
 * A function that takes a term string and an item and returns a truthy value if the item should be kept.
 */
const defaultFilter = (term, item) => {
	if (!term) return true;
	return (
		(item.data && item.data.type === 'section') ||
		item.label.match(new RegExp(escapeRegExp(term), 'ig'))
	);
};

const normalizeSearchTerm = (string) =>
	(string || '').toString().replace(/^\s+/, '');

/**
 * ** Lookup is deprecated. Please use an auto-complete Combobox instead.**
 *
 * Lookup is an advanced inline search form. The lookup can parse through single or multi scoped datasets. The parsed dataset can be filtered by single or multi option selects.
 *
 * This component is wrapped in a [higher order component to listen for clicks outside itself](https://github.com/kentor/react-click-outside) and thus requires use of `ReactDOM`.
 */
const Lookup = forwardRef(function Lookup(given, ref) {
	const context = useContext(IconSettingsContext);
	const {
		constrainToScrollParent = true,
		filterWith = defaultFilter,
		iconPosition = 'right',
		searchTerm = '',
		menuPosition = 'absolute',
		...others
	} = given;
	const props = {
		constrainToScrollParent,
		filterWith,
		iconPosition,
		searchTerm,
		menuPosition,
		...others,
	};
	const [state, setState] = useReducer(
		(state, change) => ({ ...state, ...change }),
		undefined,
		() => ({
			currentFocus: null,
			focusIndex: null,
			items: [],
			listLength: props.options.length,
			searchTerm: normalizeSearchTerm(props.searchTerm),
			selectedIndex: props.selectedItem,
		})
	);
	// Keeps track of references of children for keyboard navigation
	const pills = useRef([]);
	const focusOnRender = useRef();
	const footerComponent = useRef();
	const headerComponent = useRef();
	const input = useRef();
	const menuComponent = useRef();
	const latestProps = useRef(props);
	latestProps.current = props;
	const latestState = useRef(state);
	latestState.current = state;
	const [previousProps, setPreviousProps] = useState({ given, props });

	// `checkProps` issues warnings to developers about properties (similar to React's built in development tools)
	useState(() => checkProps(LOOKUP, props));

	useLayoutEffect(() => {
		modifyItems(props.options);
	}, []);

	const previousState = useRef(null);
	useLayoutEffect(() => {
		const prevState = previousState.current;
		previousState.current = state;
		if (prevState === null) return;
		if (
			!isNaN(parseInt(prevState.selectedIndex, 10)) &&
			isNaN(parseInt(state.selectedIndex, 10))
		) {
			if (input.current) {
				input.current.focus();
			}
		} else if (
			isNaN(parseInt(prevState.selectedIndex, 10)) &&
			!isNaN(parseInt(state.selectedIndex, 10))
		) {
			if (pills.current[state.selectedIndex]) {
				pills.current[state.selectedIndex].focus();
			}
		}
	});

	const getClassName = () =>
		classNames(props.className, 'slds-form-element slds-lookup', {
			'slds-has-selection': isSelected(),
			'slds-is-open': getIsOpen(),
		});

	const setFirstIndex = () => {
		let nextFocusIndex = 0;
		let filteredItem = state.items[0];

		if (menuComponent.current && menuComponent.current.getFilteredItemForIndex) {
			filteredItem = menuComponent.current.getFilteredItemForIndex(nextFocusIndex);
		}

		if (filteredItem && filteredItem.data.type === 'section') {
			nextFocusIndex += 1;
		}

		setState({ focusIndex: nextFocusIndex });
	};

	const getHeader = () => {
		const Header = props.headerRenderer;
		const headerActive = state.focusIndex === 0;

		return (
			<Header
				ref={(header) => {
					headerComponent.current = header;
				}}
				{...props}
				focusIndex={state.focusIndex}
				isActive={headerActive}
				onClose={handleClose}
				searchTerm={state.searchTerm}
				setFocus={setFocus}
			/>
		);
	};

	const getFooter = () => {
		const Footer = props.footerRenderer;
		const numFocusable = getNumFocusableItems();
		const footerActive = state.focusIndex === numFocusable;

		return (
			<Footer
				ref={(footer) => {
					footerComponent.current = footer;
				}}
				{...props}
				focusIndex={state.focusIndex}
				isActive={footerActive}
				onClose={handleClose}
				setFocus={setFocus}
			/>
		);
	};

	const setFocus = useCallback((id) => {
		setState({ currentFocus: id });
	}, []);

	const getIsOpen = () =>
		!!(typeof props.isOpen === 'boolean' ? props.isOpen : state.isOpen);

	const getListLength = (qty) => {
		if (qty !== state.listLength) {
			setState({ listLength: qty });
		}
	};

	const getNumFocusableItems = () => {
		let offset = 0;

		if (footerComponent.current) {
			offset += 1;
		}

		if (headerComponent.current) {
			offset += 1;
		}

		return state.listLength - 1 + offset;
	};

	// =================================================
	// Using down/up keys, set Focus on list item and assign it to aria-activedescendant attribute in input.
	// Need to keep track of filtered list length to be able to increment/decrement the focus index so it's contained to the number of available list items.
	const increaseIndex = () => {
		const numFocusable = getNumFocusableItems();
		let nextFocusIndex =
			state.focusIndex < numFocusable ? state.focusIndex + 1 : 0;
		const filteredItem = menuComponent.current.getFilteredItemForIndex(
			nextFocusIndex
		);

		if (filteredItem && filteredItem.data.type === 'section') {
			nextFocusIndex += 1;
		}

		setState({ focusIndex: nextFocusIndex });
	};

	const decreaseIndex = () => {
		const numFocusable = getNumFocusableItems();
		let prevFocusIndex =
			state.focusIndex > 0 ? state.focusIndex - 1 : numFocusable;
		const filteredItem = menuComponent.current.getFilteredItemForIndex(
			prevFocusIndex
		);

		if (filteredItem && filteredItem.data.type === 'section') {
			prevFocusIndex = prevFocusIndex === 0 ? numFocusable : prevFocusIndex - 1;
		}

		setState({ focusIndex: prevFocusIndex });
	};

	// =================================================
	// Select menu item (onClick or on key enter/space)
	const selectItem = (itemId) => {
		if (itemId) {
			const index = itemId.replace('item-', '');
			selectItemByIndex(index);
		}
	};

	const selectItemByIndex = (index) => {
		if (index >= 0 && index < state.items.length) {
			if (props.onRequestClose) {
				props.onRequestClose();
			}
			setState({
				isOpen: false,
				selectedIndex: index,
				searchTerm: '',
			});
			const data = state.items[index].data;
			if (props.onSelect) {
				props.onSelect(data);
			}
		}
	};

	const handleDeleteSelected = () => {
		if (props.onRequestOpen) {
			props.onRequestOpen();
		}
		setState({
			selectedIndex: null,
			isOpen: true,
		});

		focusInput();

		if (props.onUnselect) {
			props.onUnselect();
		}
	};

	// =================================================
	// Event Listeners on Input
	const handleClose = useCallback(() => {
		if (latestProps.current.onRequestClose) {
			latestProps.current.onRequestClose();
		}
		setState({
			isOpen: false,
			focusIndex: null,
			currentFocus: null,
		});
	}, []);

	const handleClickOutside = () => {
		handleClose();
	};

	const handleEscape = (event) => {
		if (getIsOpen() && event) {
			EventUtil.trap(event);
		}
		handleClose();
	};

	const handleCancel = useCallback(() => {
		handleClose();
	}, []);

	const handleClick = () => {
		if (props.onRequestOpen) {
			props.onRequestOpen();
		}
		setState({ isOpen: true });
	};

	const handleBlur = (event) => {
		if (props.onBlur) {
			const target = event.target || event.currentTarget;
			props.onBlur(target.value);
		}
	};

	const handleFocus = (event) => {
		if (props.onFocus) {
			const target = event.target || event.currentTarget;
			props.onFocus(target.value);
		}
		if (props.onRequestOpen) {
			props.onRequestOpen();
		}
		setState({ isOpen: true });
	};

	const handleChange = (event) => {
		const target = event.target || event.currentTarget;
		setState({ searchTerm: normalizeSearchTerm(target.value) });
		if (props.onChange) {
			props.onChange(target.value);
		}
	};

	const handleKeyDown = (event) => {
		if (event.keyCode) {
			// If user hits esc key or tab key, close menu
			if (event.keyCode === KEYS.ESCAPE) {
				handleEscape(event);
			} else if (event.keyCode === KEYS.TAB) {
				// remove the focus on input, tab focus shoud move to next tabbale elemnt
				setTimeout(() => {
					handleClose();
				}, 200);
				handleBlur(event);
			} else {
				handleClick();
			}

			// If user hits down key, advance aria activedescendant to next item
			if (event.keyCode === KEYS.DOWN) {
				EventUtil.trapImmediate(event);
				if (state.focusIndex === null) {
					setFirstIndex();
				} else {
					increaseIndex();
				}
			} else if (event.keyCode === KEYS.UP) {
				// If user hits up key, advance aria activedescendant to previous item
				EventUtil.trapImmediate(event);
				const numFocusable = getNumFocusableItems();
				if (state.focusIndex === null) {
					setState({ focusIndex: numFocusable });
				} else {
					decreaseIndex();
				}
			} else if (
				event.keyCode === KEYS.ENTER &&
				state.focusIndex !== null
			) {
				// If user hits enter, select current activedescendant item
				EventUtil.trapImmediate(event);
				// If the focus is on the first fixed Action Item in Menu, click it
				if (headerComponent.current && state.focusIndex === 0) {
					headerComponent.current.handleClick();
				} else if (
					footerComponent.current &&
					state.focusIndex === state.listLength + 1
				) {
					// If the focus is on the last fixed Action Item in Menu, click it
					footerComponent.current.handleClick();
				} else {
					// If not, then select menu item
					selectItem(state.currentFocus);
				}
			}
		}
	};

	const handlePillKeyDown = (event) => {
		if (event.keyCode) {
			if (event.keyCode === KEYS.DELETE || event.keyCode === KEYS.BACKSPACE) {
				EventUtil.trapImmediate(event);
				handleDeleteSelected();
			}
		}
	};

	const inputRefId = () => `${props.label}Lookup`;

	const focusInput = () => {
		focusOnRender.current = true;
	};

	const isSelected = () => {
		const hasSelection =
			!isNaN(parseInt(state.selectedIndex, 10)) &&
			state.selectedIndex >= 0;
		return hasSelection;
	};

	const modifyItems = (itemsToModify) => {
		const items = itemsToModify.map((item, index) => ({
			id: `item-${index}`,
			label: item.label,
			data: item,
		}));

		setState({ items });
	};

	// =================================================
	// Rendering Things
	const renderMenuContent = () => (
		<Menu
			ref={(menu) => {
				menuComponent.current = menu;
			}}
			emptyMessage={props.emptyMessage}
			filterWith={props.filterWith}
			focusIndex={state.focusIndex}
			footer={props.footerRenderer ? getFooter() : null}
			getListLength={getListLength}
			header={props.headerRenderer ? getHeader() : null}
			iconCategory={props.iconCategory}
			iconInverse={props.iconInverse}
			iconName={props.iconName}
			items={state.items}
			label={props.label}
			listItemLabelRenderer={props.listItemLabelRenderer}
			listLength={state.listLength}
			onSelect={selectItem}
			searchTerm={state.searchTerm}
			sectionDividerRenderer={props.sectionDividerRenderer}
			setFocus={setFocus}
		/>
	);

	const renderInlineMenu = () =>
		getIsOpen() ? (
			<div
				className="ignore-react-onclickoutside slds-lookup__menu"
				role="listbox"
			>
				{renderMenuContent()}
			</div>
		) : null;

	const renderSeparateMenu = () => {
		// FOR BACKWARDS COMPATIBILITY
		const menuPosition = props.isInline
			? 'relative'
			: props.menuPosition; // eslint-disable-line react/prop-types
		return getIsOpen() ? (
			<Dialog
				align="bottom"
				className="slds-lookup__menu slds-show"
				closeOnTabKey
				contentsClassName="slds-lookup__menu slds-show"
				context={context}
				inheritWidthOf="target"
				onClose={handleCancel}
				hasStaticAlignement={!props.flippable}
				constrainToScrollParent={props.constrainToScrollParent}
				onRequestTargetElement={() => input.current}
				position={menuPosition}
			>
				{renderMenuContent()}
			</Dialog>
		) : null;
	};

	const renderInput = () => (
		<Input
			aria-activedescendant={state.currentFocus ? state.currentFocus : ''}
			aria-autocomplete="list"
			aria-describedby={props.describedById}
			aria-expanded={!!getIsOpen()}
			assistiveText={props.assistiveText}
			className="slds-lookup__search-input"
			disabled={props.disabled}
			iconRight={
				<InputIcon
					assistiveText={{ icon: 'Search' }}
					category="utility"
					name="search"
				/>
			}
			id={inputRefId()}
			onBlur={handleBlur}
			onChange={handleChange}
			onClick={handleClick}
			onFocus={handleFocus}
			onKeyDown={handleKeyDown}
			inputRef={(component) => {
				input.current = component;
				if (focusOnRender.current) {
					input.current.focus();
					focusOnRender.current = false;
				}
			}}
			placeholder={props.placeholder}
			role="combobox"
			type="text"
			value={state.searchTerm}
		/>
	);

	const renderSelectedItem = () => {
		const selectedItem = props.options[state.selectedIndex].label;
		const renderIcon = props.iconName ? (
			<Icon
				category={props.iconCategory}
				className="slds-icon slds-pill__icon"
				inverse={props.iconInverse}
				name={props.iconName}
			/>
		) : null;
		const labelClassName = props.iconName
			? 'slds-pill__label'
			: 'slds-pill__label slds-m-left_x-small';

		// i18n
		return (
			<div className="slds-pill__container">
				<a
					href="#"
					className="slds-pill"
					ref={(pill) => {
						pills.current[latestState.current.selectedIndex] = pill;
					}}
					onClick={(event) => event.preventDefault()}
					onKeyDown={handlePillKeyDown}
				>
					{renderIcon}
					<span className={labelClassName}>{selectedItem}</span>
					<Button
						assistiveText={{ icon: 'Press delete to remove' }}
						className="slds-pill__remove slds-button_icon-bare"
						iconCategory="utility"
						iconName="close"
						onClick={handleDeleteSelected}
						tabIndex="-1"
						variant="icon"
					/>
				</a>
			</div>
		);
	};

	const renderLabel = () => {
		let inputLabel;
		const required = props.required ? (
			// eslint-disable-next-line react/jsx-curly-brace-presence
			<span className="slds-required">{'*'}</span>
		) : null;
		if (isSelected()) {
			// inline style override
			inputLabel = (
				<span className="slds-form-element__label" style={{ width: '100%' }}>
					{required}
					{props.label}
				</span>
			);
		} else {
			inputLabel = (
				<label
					className="slds-form-element__label"
					htmlFor={inputRefId()}
					style={{ width: '100%' }}
				>
					{required}
					{props.label}
				</label>
			);
		}
		return inputLabel;
	};

	useImperativeHandle(ref, () => ({ handleClickOutside }));

	// eslint-disable-next-line camelcase, react/sort-comp
	if (previousProps.given !== given) {
		const propsBefore = previousProps.props;
		setPreviousProps({ given, props });
		if (props.options) {
			modifyItems(props.options);
		}
		if (
			props.selectedItem !== propsBefore.selectedItem ||
			!isEqual(props.options, propsBefore.options)
		) {
			setState({ selectedIndex: props.selectedItem });
		}
		return null;
	}

	let isInline;
	/* eslint-disable react/prop-types */
	if (props.isInline) {
		isInline = true;
	} else if (props.modal !== undefined) {
		isInline = !props.modal;
	}
	/* eslint-enable react/prop-types */

	const formElementControlClasses = {
		'slds-form-element__control': true,
		[`slds-input-has-icon slds-input-has-icon_${props.iconPosition}`]: !isSelected(),
	};

	return (
		<div
			className={getClassName()}
			data-select="single"
			data-scope="single"
			onScroll={props.onScroll}
		>
			{props.label ? renderLabel() : null}
			<div className={classNames(formElementControlClasses)}>
				{isSelected() ? renderSelectedItem() : null}
				{!isSelected() ? renderInput() : null}
			</div>
			{isInline ? renderInlineMenu() : renderSeparateMenu()}
		</div>
	);
});

Lookup.displayName = LOOKUP;

Lookup.propTypes = {
	/**
	 * If present, the label associated with this `input` is overwritten
	 * by this text and is visually not shown.
	 */
	assistiveText: PropTypes.oneOfType([PropTypes.object, PropTypes.string]),
	/**
	 * Class names to be added to the tag classed with `slds-lookup`.
	 */
	className: PropTypes.oneOfType([
		PropTypes.array,
		PropTypes.object,
		PropTypes.string,
	]),
	/**
	 * If true, constrains the menu to the scroll parent. Has no effect if `isInline` is `true`.
	 */
	constrainToScrollParent: PropTypes.bool,
	/**
	 * ID for aria-describedby (e.g. for an error message or a description)
	 */
	describedById: PropTypes.string,
	/**
	 * Please select one of the following:
	 * * `absolute` - (default) The dialog will use `position: absolute` and style attributes to position itself. This allows inverted placement or flipping of the dialog.
	 * * `overflowBoundaryElement` - The dialog will overflow scrolling parents. Use on elements that are aligned to the left or right of their target and don't care about the target being within a scrolling parent. Typically this is a popover or tooltip. Dropdown menus can usually open up and down if no room exists. In order to achieve this a portal element will be created and attached to `body`. This element will render into that detached render tree.
	 * * `relative` - No styling or portals will be used. Menus will be positioned relative to their triggers. This is a great choice for HTML snapshot testing.
	 */
	menuPosition: PropTypes.string,
	/**
	 * This prop is passed onto the `input`. Prevents dropdown menu from opening. Also applies disabled styling to input.
	 */
	disabled: PropTypes.bool,
	/**
	 * Custom message that renders when no matches found. The default empty state is just text that says, 'No matches found.'.
	 */
	emptyMessage: PropTypes.oneOfType([PropTypes.string, PropTypes.element]),
	/**
	 * Custom function to filter the Lookup items when typing into input field. The default function is case-insensitive and uses the searchTerm to filter Lookup items on their labels.
	 */
	filterWith: PropTypes.func,
	/**
	 * If true, the menu is constrained to the window and may be flipped up. Has no effect if `isInline` is `true`. In other components, its opposite is used `hasStaticAlignment`.
	 */
	flippable: PropTypes.bool,
	/**
	 * Custom component for Lookup footer. The default footer allows user to add new item - see <a href='http://www.lightningdesignsystem.com/components/lookups/#base'>Lightning Design System Lookup > Base</a>. To use the default footer, pass in <code>Lookup.DefaultFooter</code>.
	 */
	footerRenderer: PropTypes.func,
	/**
	 * Custom component for Lookup header. The default header has a search icon and shows the search term - see <a href='http://www.lightningdesignsystem.com/components/lookups/#base'>Lightning Design System Lookup > Base</a>. To use the default header, pass in <code>Lookup.DefaultHeader</code>.
	 */
	headerRenderer: PropTypes.func,
	/**
	 * Please refer to <a href='http://www.lightningdesignsystem.com/resources/icons'>Lightning Design System Icons</a> to view categories.
	 */
	iconCategory: PropTypes.string,
	/**
	 * If true, icon color is white. If false, icon color is the default text color.
	 */
	iconInverse: PropTypes.bool,
	/**
	 * Name of icon. Please refer to <a href='http://www.lightningdesignsystem.com/resources/icons'>Lightning Design System Icons</a> to view icon names.
	 */
	iconName: PropTypes.string,
	/**
	 * Determines whether the input's icon will display that icon on the left or the right.
	 */
	iconPosition: PropTypes.oneOf(['left', 'right']),
	/**
	 * Renders menu within the wrapping trigger as a sibling of the button. By default, you will have an absolutely positioned container at an elevated z-index.
	 */
	isInline: PropTypes.bool,
	/**
	 * Whether or not the dropdown menu is open. This overrides the default behavior.
	 */
	isOpen: PropTypes.bool,
	/**
	 * Form label for input.
	 */
	label: PropTypes.string,
	/**
	 * Custom component that overrides the default Lookup Item component.
	 */
	listItemLabelRenderer: PropTypes.func,
	/**
	 * Triggered when input focus is removed.
	 */
	onBlur: PropTypes.func,
	/**
	 * Triggered when the contents of the input changes.
	 */
	onChange: PropTypes.func,
	/**
	 * Triggered when input is focused.
	 */
	onFocus: PropTypes.func,
	/**
	 * Function called when the lookup dropdown would like hide. This will turn the Lookup into into a controlled component. Please use with `isOpen`.
	 */
	onRequestClose: PropTypes.func,
	/**
	 * Function called when the lookup dropdown would like show. This will turn the Lookup into into a controlled component. Please use with `isOpen`.
	 */
	onRequestOpen: PropTypes.func,
	/**
	 * Triggered when the user scrolls in the dropdown menu.
	 */
	onScroll: PropTypes.func,
	/**
	 * Triggered when an item is selected from the dropdown menu.
	 */
	onSelect: PropTypes.func,
	/**
	 * Triggered when an item is an item is removed from the input.
	 */
	onUnselect: PropTypes.func,
	/**
	 * Item added to the dropdown menu.
	 */
	options: PropTypes.array.isRequired,
	/**
	 * Text that will appear in an empty input.
	 */
	placeholder: PropTypes.string,
	/**
	 * If true, adds asterisk next to input label to indicate it is a required field.
	 */
	required: PropTypes.bool,
	/**
	 * Text passed on to header search input of dropdown menu.
	 */
	searchTerm: PropTypes.string,
	/**
	 * Custom component that overrides the default section divider
	 */
	sectionDividerRenderer: PropTypes.func,
	/**
	 * Index of current selected item. To clear the selection, pass in -1.
	 */
	selectedItem: PropTypes.number,
};

export default Lookup;
