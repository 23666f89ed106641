# frozen_string_literal: true

module Mordant
  # What a recipe is made of. One class a file in steps/, a descendant of Step
  # that declares
  #
  #   named :balance, "Balance"      its id in recipes, its name on screens
  #   domain :log                    what its values are: :log, :linear, :display
  #   parameter :gain, ...           see Parameter; validation, stored recipes,
  #                                  controls and documents read the same lines
  #
  #   text :lut, ...                 a parameter that is a text, see TextParameter
  #   points :luma, ...              a parameter that is a curve, see PointsParameter
  #
  # and answers +operations(space)+: Pointwise operations in that domain, for the
  # working space given. Neutral parameters must give none. A step that declares
  #
  #   reach :area                    it depends on where a pixel is or on those near it
  #   reach :time                    it depends on frames before and after
  #
  # answers +process(space)+ instead, with +margin(raster)+ or +window+; see Step#process.
  module Steps
    class << self
      # @return [Array<Class>] every step of a grade, by id
      def all
        Mordant.load_folder(File.join(__dir__, "steps"))
        return @all if @known == Step.subclasses.size

        @known = Step.subclasses.size
        @all = Step.subclasses.select { |step| step.name && step.serves == :pictures }.sort_by(&:id)
      end

      # @return [Array<Class>] what renditions are corrected by
      def corrections = [Rendition::ForAll, Rendition::ForTarget].freeze

      # @raise [UnknownIdError]
      def fetch(id)
        (all + corrections).find { |step| step.id == id.to_s } || raise(UnknownIdError.new("step", id, all.map(&:id)))
      end
    end
  end
end
