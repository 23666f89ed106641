# frozen_string_literal: true

module Mordant
  module Colour
    # Members of a family by their id. Reading it loads the family's folder, so
    # that a member is known as soon as its file exists.
    module Registry
      # @param member [#id]
      # @return the member
      def register(member)
        members[member.id] = member
      end

      # @raise [UnknownIdError]
      def fetch(id) = loaded[id] || raise(UnknownIdError.new(family, id, all.map(&:id)))

      def known?(id) = loaded.key?(id)

      # @return [Array] every member, by id
      def all = built_in

      def built_in?(id) = loaded.key?(id)

      # @return [Array] every member that is a file of ours, by id
      def built_in = loaded.values.sort_by(&:id)

      private

      def members = (@members ||= {})

      def loaded
        @loaded ||= begin
          LOADER.eager_load_namespace(folder)
          members
        end
      end
    end
  end
end
