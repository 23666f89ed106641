# frozen_string_literal: true

module Mordant
  module Grade
    # A step in its place in a recipe. Immutable.
    class Entry
      KEYS = %w[id kind name enabled strength braid parameters keys].freeze

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

      # @param document [Hash] as parsed from JSON; id and kind are needed
      # @raise [ParameterError]
      def initialize(document, path: "step")
        reject(path, "an object with #{KEYS.join(", ")}", document) unless document.is_a?(Hash)
        unknown = document.keys - KEYS
        reject(path, "only #{KEYS.join(", ")}", unknown.first) unless unknown.empty?
        @id = text(document, "id", path)
        kind = step_class(document, path)
        @name = document.key?("name") ? text(document, "name", path) : kind.label
        @enabled = switch(document, path)
        @strength = share(document, path)
        @braid = document["braid"] && text(document, "braid", path)
        parameters = document.fetch("parameters", {})
        reject("#{path}.parameters", "an object", parameters) unless parameters.is_a?(Hash)
        @step = kind.new(parameters, path: "#{path}.parameters")
        @keys = Keys.new(document.fetch("keys", []), kind:, path: "#{path}.keys")
        freeze
      end

      # Whether it changes from frame to frame.
      def moving? = !@keys.empty?

      # @param frame [Integer] from the shot's first one
      # @return [Entry] as it is there, which does not move
      def at(frame) = moving? ? Entry.new(to_h.except("keys").merge("parameters" => @keys.at(frame).transform_keys(&:to_s))) : self

      def enabled? = @enabled

      # Whether pictures depend on it.
      def acts? = enabled? && strength.positive? && !(moving? ? @keys.neutral? : step.neutral?)

      # @return [Array] Pointwise operations in the step's domain, or a Stage
      def operations(space)
        return [Stage.new(step.process(space), strength)] unless step.pointwise?

        own = step.operations(space)
        return own if strength == 1.0 || own.empty?

        [blend(Pointwise::Chain.new(own))]
      end

      def to_h
        {"id" => id, "kind" => step.class.id, "name" => name, "enabled" => enabled?, "strength" => strength,
         **(braid ? {"braid" => braid} : {}), "parameters" => step.values.transform_keys(&:to_s), **(moving? ? {"keys" => @keys.to_a} : {})}
      end

      private

      # What strength leaves: in + strength * (out - in), in the step's domain.
      # Curves stay curves.
      def blend(chain)
        only = chain.operations.first
        if chain.operations.one? && only.is_a?(Pointwise::Curve)
          mixed = only.functions.uniq.to_h { |f| [f, ->(x) { x + (f.call(x) - x) * strength }] }
          return Pointwise::Curve.new(only.functions.map { |f| mixed.fetch(f) }, domain: only.domain, fine: only.fine?)
        end
        Pointwise::Blend.new(chain, strength)
      end

      def reject(path, expected, found) = raise(ParameterError.new(path:, expected:, found:))

      def text(document, key, path)
        value = document[key]
        return value.dup.freeze if value.is_a?(String) && value.length.between?(1, 80)

        reject("#{path}.#{key}", "a text of 1 to 80 characters", value)
      end

      def step_class(document, path)
        Steps.fetch(document["kind"])
      rescue UnknownIdError
        reject("#{path}.kind", "one of #{Steps.all.map(&:id).join(", ")}", document["kind"])
      end

      def switch(document, path)
        value = document.fetch("enabled", true)
        [true, false].include?(value) ? value : reject("#{path}.enabled", "true or false", value)
      end

      def share(document, path)
        value = document.fetch("strength", 1.0)
        return value.to_f if value.is_a?(Numeric) && value.to_f.between?(0.0, 1.0)

        reject("#{path}.strength", "a number in 0.0..1.0", value)
      end
    end
  end
end
