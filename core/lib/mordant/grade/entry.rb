# frozen_string_literal: true

module Mordant
  module Grade
    # A step in its place in a recipe. Immutable.
    class Entry
      include Altered

      KEYS = %w[id kind name enabled strength braid bundle parameters keys matte spans].freeze

      # @return [String] id, unique in its recipe
      attr_reader :id
      attr_reader :name
      # @return [Float] 0.0..1.0: how much of the step's change is kept
      attr_reader :strength
      # @return [Steps::Step]
      attr_reader :step
      # @return [String, nil] neighbours with the same braid take the same input, and their
      #   changes are added
      attr_reader :braid
      # @return [Bundle, nil] it is kept in
      attr_reader :bundle
      # @return [Steps::Step] the step as its bundle scales it
      attr_reader :worked
      # @return [Float] 0.0..1.0: how much of what that changes is kept
      attr_reader :share
      # @return [Matte::Composite, nil] what of the picture it acts on; nil: all
      attr_reader :matte
      # @return [Integer] frames that what owns the step began before the shot; its keys and spans count from there
      attr_reader :since
      # @return [Keys]
      attr_reader :keys
      # @return [Array<Span>] it takes part in the strongest of; none: everywhere
      attr_reader :spans

      # @param document [Hash] as parsed from JSON; id and kind are needed
      # @param spans [Hash{String => Span}] of its recipe, by id
      # @param bundles [Hash{String => Bundle}] the same
      # @raise [ParameterError]
      # @param serves [Symbol] what it may be a step of, see Steps::Step.serves
      def initialize(document, path: "step", spans: {}, bundles: {}, serves: :pictures)
        reject(path, "an object with #{KEYS.join(", ")}", document) unless document.is_a?(Hash)
        unknown = document.keys - KEYS
        reject(path, "only #{KEYS.join(", ")}", unknown.first) unless unknown.empty?
        @id = text(document, "id", path)
        kind = step_class(document, path, serves)
        @name = document.key?("name") ? text(document, "name", path) : kind.label
        @enabled = Checks.switch(document.fetch("enabled", true), "#{path}.enabled")
        @strength = Checks.number(document.fetch("strength", 1.0), "#{path}.strength", 0.0..1.0)
        @braid = document["braid"] && text(document, "braid", path)
        @bundle = document["bundle"] && bundles.fetch(document["bundle"]) { reject("#{path}.bundle", "the id of a bundle of the recipe", document["bundle"]) }
        @step, @keys = Keys.read(document.fetch("parameters", {}), document.fetch("keys", {}), kind:, path:)
        @spans = named_spans(document.fetch("spans", []), spans, "#{path}.spans")
        @matte = document["matte"] && Matte::Composite.new(document["matte"], path: "#{path}.matte")
        @since = 0
        weigh
        freeze
      end

      # Whether it changes from frame to frame.
      def moving? = !@keys.empty? || !@spans.empty? || step.moving? || (!matte.nil? && matte.moving?)

      # @param frame [Integer] from the shot's first one
      # @return [Entry] as it is there, which does not move; where no span is, of no strength
      def at(frame)
        return self unless moving?

        step = @keys.at(@step, frame + since).at(frame + since, @sown&.call(frame))
        matte = @matte&.at(frame + since, frame)
        share = spanned(frame)
        copy do
          @step, @keys, @matte, @spans, @strength = step, Keys::NONE, matte, [].freeze, @strength * share
          weigh
        end
      end

      # @param frame [Integer] from the shot's first one
      # @return [Float] 0.0..1.0: what the strongest of its spans leaves of it there
      def spanned(frame) = spans.map { |span| span.at(frame + since) }.max || 1.0

      # @param contributor [String] id of a shape of its matte
      # @param by [Array(Float, Float)] heights of the picture, across and down
      # @return [Entry] with that shape elsewhere, wherever else it is carried
      def shifted(contributor, by)
        made = matte.shifted(contributor, Track::Map.similarity(*by))
        copy { @matte = made }
      end

      # @see Recipe#resolved
      def resolved(resolver)
        made = matte&.resolved(resolver)
        made.equal?(matte) ? self : copy { @matte = made }
      end

      # @return [Array<Range<Integer>>] of the shot's frames, in which it moves; see Course#moves
      def moves
        return [] unless moving? && acts?

        own = [*@keys.moves, *matte&.moves, (Course::EVER if step.moving?)].compact
        own = own.flat_map { |range| spans.map(&:reach).filter_map { |reach| Span.common(range, reach) } } unless spans.empty?
        [*own, *spans.flat_map(&:moves)].map { |range| (range.begin - since)..(range.end - since) }
      end

      # @param share [Float] 0.0..1.0
      # @return [Entry] with so much of its strength
      def weakened(share)
        copy do
          @strength *= share
          @share *= share
        end
      end

      # @param frames [Range<Integer>, nil] of the shot; nil: all of it
      # @return [Integer] frames before and after that it depends on, wherever it is in those
      def window(frames = nil) = (acts? && (frames.nil? || there?(frames))) ? @window : 0

      # @param frames [Integer]
      # @return [Entry] of an owner that began so many frames before the shot
      def began(frames) = moving? ? copy { @since = frames } : self

      # @param seeds [#call] see Recipe#sown
      # @return [Entry]
      def sown(seeds) = step.moving? ? copy { @sown = seeds } : self

      # @return [Entry] with all its change, everywhere
      def alone = copy { @strength, @share, @matte, @braid, @spans = 1.0, 1.0, nil, nil, [].freeze }

      # @return [Boolean] it acts on each pixel by itself, everywhere
      def pointwise? = step.pointwise? && !masked?

      # @return [Boolean] its matte leaves something out
      def masked? = !(matte.nil? || matte.everywhere?)

      def enabled? = @enabled

      # Whether pictures depend on it.
      def acts? = enabled? && (bundle.nil? || bundle.acts?) && strength.positive? && !@neutral

      # @param share [Float] of its change
      # @return [Array] Pointwise operations in the step's domain, at its strength
      def operations(space, share: self.share)
        Common.operations(worked, space, share) do
          own = worked.operations(space)
          (share == 1.0 || own.empty?) ? own : worked.partly(space, share) || [blend(Pointwise::Chain.new(own), share)]
        end
      end

      # @return [Section::Area, Section::Time] of a step that is not pointwise, in its domain
      def section(space, share: self.share) = ((step.class.reach == :area) ? Section::Area : Section::Time).new(worked, space, share)

      # @return [Array] for JSON, what it depends on besides its document
      def stamps = [*step.stamps, *matte&.stamps]

      def to_h
        {"id" => id, "kind" => step.class.id, "name" => name, "enabled" => enabled?, "strength" => strength,
         **(braid ? {"braid" => braid} : {}), **(bundle ? {"bundle" => bundle.id} : {}), "parameters" => step.values.transform_keys(&:to_s), **(@keys.empty? ? {} : {"keys" => @keys.to_h}),
         **(spans.empty? ? {} : {"spans" => spans.map(&:id)}), **(matte ? {"matte" => matte.to_h} : {})}
      end

      private

      # What does not change with the frame.
      def weigh
        all = @keys.all(step)
        @neutral, @window = all.all?(&:neutral?), all.map(&:window).max
        scaled = bundle && step.class.scales.any? && bundle.strength < 1.0
        @worked = scaled ? step.scaled(bundle.strength) : step
        @share = (bundle && !scaled) ? strength * bundle.strength : strength
      end

      # Whether a span has it in some of the shot's frames.
      def there?(frames) = spans.empty? || spans.any? { |span| span.reach.begin < frames.end + since && span.reach.end >= frames.begin + since }

      # What is kept: in + share * (out - in), in the step's domain.
      # Curves stay curves.
      def blend(chain, share)
        only = chain.operations.first
        if chain.operations.one? && only.is_a?(Pointwise::Curve)
          mixed = only.functions.uniq.to_h { |f| [f, ->(x) { x + (f.call(x) - x) * share }] }
          return Pointwise::Curve.new(only.functions.map { |f| mixed.fetch(f) }, domain: only.domain, fine: only.fine?)
        end
        Pointwise::Blend.new(chain, share)
      end

      def reject(path, expected, found) = raise(ParameterError.new(path:, expected:, found:))

      def text(document, key, path)
        value = document[key]
        return value.dup.freeze if value.is_a?(String) && value.length.between?(1, 80)

        reject("#{path}.#{key}", "a text of 1 to 80 characters", value)
      end

      def named_spans(ids, spans, path)
        reject(path, "a list of ids of spans", ids) unless ids.is_a?(Array) && ids.all?(String)
        unknown = (ids - spans.keys).first
        reject(path, "ids of spans of the recipe", unknown) if unknown
        ids.uniq.map { |id| spans.fetch(id) }.freeze
      end

      def step_class(document, path, serves)
        known = (serves == :pictures) ? Steps.all : Steps.corrections
        known.find { |step| step.id == document["kind"] } || reject("#{path}.kind", "one of #{known.map(&:id).join(", ")}", document["kind"])
      end
    end
  end
end
